import { Link } from "react-router";
import type { SeriesView } from "../../api/client.ts";
import { Ruler } from "../../parts/Ruler.tsx";
import { StateWord } from "../../parts/StateWord.tsx";
import { leftText } from "../../parts/words.ts";
import { Scroller } from "../../parts/Scroller.tsx";

/** One line a series: what comes next, what was given last, how much is left. */
export function SeriesTable({ series, wide }: { series: SeriesView[]; wide?: boolean }) {
  return (
    <Scroller label="Series">
      <table className="table table-sm">
        <thead>
          <tr>
            <th>Series</th>
            <th>Next</th>
            {wide && <th>Newest</th>}
            <th className="text-right">Left</th>
            <th>Used</th>
            <th>State</th>
          </tr>
        </thead>
        <tbody>
          {series.map((each) => {
            const now =
              each.ranges.find((range) => range.state === "serving") ??
              each.ranges.find((range) => range.state === "exhausted");
            return (
              <tr key={each.key}>
                <td>
                  <Link className="link font-medium" to={`/series/${each.key}`}>
                    {each.title}
                  </Link>
                  {wide && <div className="quiet text-xs identifier">{each.key}</div>}
                </td>
                <td className="identifier">
                  {each.next[0] ??
                    (each.fields.length > 0 ? (
                      <span className="quiet">by {each.fields.map((field) => field.name).join(", ")}</span>
                    ) : (
                      "—"
                    ))}
                </td>
                {wide && <td className="identifier">{each.newest?.identifier ?? "—"}</td>}
                <td className="text-right tabular-nums">{leftText(each.left, each.order)}</td>
                <td className="w-28">
                  {now?.given !== undefined && each.left !== undefined && (
                    <Ruler given={now.given} size={now.size} low={each.low} />
                  )}
                </td>
                <td>
                  <StateWord series={each} />
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </Scroller>
  );
}
