import type { SeriesView } from "../../api/client.ts";
import { Ruler } from "../../parts/Ruler.tsx";
import { count, leftText, rangeText } from "../../parts/words.ts";
import { Scroller } from "../../parts/Scroller.tsx";

/** The ranges of a series, each with the lanes that were used. */
export function RangeTable({ series: { ranges, order } }: { series: SeriesView }) {
  const skips = ranges.some((range) => range.lanes.some((lane) => lane.skipped > 0));
  return (
    <section className="sheet" aria-labelledby="ranges">
      <h2 id="ranges" className="sheet-title">
        Ranges
      </h2>
      <Scroller label="Ranges">
        <table className="table table-sm">
          <thead>
            <tr>
              <th>Values</th>
              <th>Dates</th>
              <th>State</th>
              <th>Lane</th>
              <th className="text-right">Issued</th>
              {skips && <th className="text-right">Skipped</th>}
              <th className="text-right">Left</th>
              <th>Last date</th>
              <th>Used</th>
            </tr>
          </thead>
          <tbody>
            {ranges.flatMap((range) =>
              (range.lanes.length === 0
                ? [
                    {
                      period: "",
                      given: 0,
                      skipped: 0,
                      latest: undefined,
                      left: order === "repeating" ? undefined : range.size,
                    },
                  ]
                : range.lanes
              ).map((lane, i) => (
                <tr key={`${range.id}/${lane.period}`}>
                  <td className="identifier">{i === 0 && rangeText(range)}</td>
                  <td className="whitespace-nowrap tabular-nums">
                    {i === 0 && (range.closes ? `${range.opens} to ${range.closes}` : `from ${range.opens}`)}
                  </td>
                  <td>{i === 0 && (range.state === "serving" ? "active" : range.state)}</td>
                  <td className="tabular-nums">{lane.period || "—"}</td>
                  <td className="text-right tabular-nums">{count(lane.given)}</td>
                  {skips && <td className="text-right tabular-nums">{count(lane.skipped)}</td>}
                  <td className="text-right tabular-nums">{leftText(lane.left, order)}</td>
                  <td className="whitespace-nowrap tabular-nums">{lane.latest ?? "—"}</td>
                  <td className="w-32">
                    {lane.left !== undefined && (
                      <Ruler
                        given={lane.given}
                        size={range.size}
                        low={range.warnWhenLeft !== undefined && lane.left < range.warnWhenLeft}
                      />
                    )}
                  </td>
                </tr>
              )),
            )}
          </tbody>
        </table>
      </Scroller>
    </section>
  );
}
