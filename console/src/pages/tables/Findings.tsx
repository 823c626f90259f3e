import type { ColumnFindings, TableLane, TextFault } from "../../api/client.ts";
import { count } from "../../parts/words.ts";
import { ValuePicture } from "./ValuePicture.tsx";

const deviations: Record<string, string> = {
  blank: "blanks",
  case: "other case",
  dash: "another dash",
  "look-alike": "a symbol that looks alike",
  "lost-zero": "leading zeros missing",
  "extra-zero": "too many leading zeros",
  separator: "a separator missing, added or another",
  check: "wrong or missing check digit",
};

const kinds: Record<string, string> = {
  spelling: "spelled in another way",
  near: "near to a number",
  exponent: "a figure with an exponent, made by a spreadsheet",
  date: "a date",
  formula: "a formula",
  unreadable: "no number",
};

/** What is in one column of a table. */
export function Findings({ found }: { found: ColumnFindings }) {
  return (
    <section className="sheet" aria-labelledby="findings">
      <h2 id="findings" className="sheet-title">
        Column {found.column}
      </h2>
      <div className="p-4 grid gap-6">
        <dl className="flex flex-wrap gap-x-8 gap-y-2" data-testid="figures">
          <Figure name="Rows" value={found.rows} />
          <Figure name="With a number" value={found.read} />
          <Figure name="Blank" value={found.blanks} />
          <Figure name="With another text" value={found.unread} />
          <Figure name="Duplicates" value={found.duplicates} />
        </dl>
        {found.lanes.map((lane) => (
          <LanePanel key={`${lane.series} ${lane.range} ${lane.lane} ${lane.lowest.text}`} lane={lane} />
        ))}
        {found.moreLanes > 0 && <p className="quiet">{count(found.moreLanes)} more lanes are not shown.</p>}
        <Duplicates found={found} />
        <Faults found={found} />
        <Tallies found={found} />
      </div>
    </section>
  );
}

function Figure({ name, value }: { name: string; value: number }) {
  return (
    <div>
      <dt className="text-sm quiet">{name}</dt>
      <dd className="text-xl font-semibold">{count(value)}</dd>
    </div>
  );
}

/** What people call a lane: its series, range and period, or the shape of its numbers. */
const laneName = (lane: TableLane): string =>
  [lane.series, lane.series && (lane.range === 0 ? "no range" : `range ${lane.range}`), lane.lane]
    .filter(Boolean)
    .join(", ");

function LanePanel({ lane }: { lane: TableLane }) {
  return (
    <section className="grid gap-2" aria-label={laneName(lane)}>
      <h3 className="font-semibold">
        <span className="identifier">{laneName(lane)}</span>
        <span className="quiet font-normal">
          {" "}
          – {count(lane.numbers)} rows, {count(lane.missing)} missing
        </span>
      </h3>
      <ValuePicture lane={lane} />
      {lane.lastAsText !== lane.highest.text && (
        <p className="text-sm">
          Sorted as text, <span className="identifier">{lane.lastAsText}</span> comes last; by value, the highest is{" "}
          <span className="identifier">{lane.highest.text}</span>.
        </p>
      )}
      {lane.gaps.length > 0 && (
        <details>
          <summary className="text-sm">
            {count(lane.gaps.length + lane.moreGaps)} {lane.gaps.length + lane.moreGaps === 1 ? "gap" : "gaps"}
          </summary>
          <ul className="text-sm identifier columns-2 sm:columns-3 mt-1">
            {lane.gaps.map((gap) => (
              <li key={gap.low}>{gap.from === gap.to ? gap.from : `${gap.from} to ${gap.to}`}</li>
            ))}
          </ul>
          {lane.moreGaps > 0 && <p className="quiet text-sm">{count(lane.moreGaps)} more are not listed.</p>}
        </details>
      )}
    </section>
  );
}

function Duplicates({ found }: { found: ColumnFindings }) {
  if (found.duplicates === 0) return null;
  return (
    <section aria-labelledby="duplicates" className="grid gap-2">
      <h3 id="duplicates" className="font-semibold">
        Duplicates
      </h3>
      <div className="overflow-x-auto">
        <table className="table table-sm">
          <thead>
            <tr>
              <th>Number</th>
              <th>Lines</th>
              <th>The rows differ in</th>
            </tr>
          </thead>
          <tbody>
            {found.listedDuplicates.map((each) => (
              <tr key={each.text}>
                <td className="identifier">{each.text}</td>
                <td>
                  {each.lines.join(", ")}
                  {each.rows > each.lines.length && ` and ${count(each.rows - each.lines.length)} more`}
                </td>
                <td>{each.differing.join(", ") || "nothing"}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}

const meant = (fault: TextFault): string =>
  fault.meant
    .map((each) => `${each.identifier} (${each.deviations.map((word) => deviations[word]).join(", ")})`)
    .join(" or ");

function Faults({ found }: { found: ColumnFindings }) {
  if (found.faults.length === 0) return null;
  const all = Object.values(found.faultsByKind).reduce((sum, texts) => sum + texts, 0);
  return (
    <section aria-labelledby="faults" className="grid gap-2">
      <h3 id="faults" className="font-semibold">
        Texts with a fault
      </h3>
      <div className="overflow-x-auto max-h-96">
        <table className="table table-sm">
          <thead>
            <tr>
              <th>Line</th>
              <th>Text</th>
              <th>Fault</th>
              <th>Possibly meant</th>
            </tr>
          </thead>
          <tbody>
            {found.faults.map((fault) => (
              <tr key={fault.line}>
                <td>{fault.line}</td>
                <td className="identifier whitespace-pre">{fault.text}</td>
                <td>{kinds[fault.kind]}</td>
                <td>{meant(fault)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {all > found.faults.length && (
        <p className="quiet text-sm">{count(all - found.faults.length)} more are not listed.</p>
      )}
    </section>
  );
}

function Tallies({ found }: { found: ColumnFindings }) {
  const tallies = [
    { name: "By year", counts: found.byYear },
    { name: "By letters in front", counts: found.byLetters },
    ...Object.entries(found.byField).map(([field, counts]) => ({ name: `By ${field}`, counts })),
  ].filter(({ counts }) => Object.keys(counts).length > 1);
  if (tallies.length === 0) return null;
  return (
    <div className="grid gap-4 sm:grid-cols-2 lg:grid-cols-3">
      {tallies.map(({ name, counts }) => (
        <section key={name} aria-label={name}>
          <h3 className="font-semibold">{name}</h3>
          <dl className="text-sm grid grid-cols-[auto_1fr] gap-x-4">
            {Object.entries(counts).map(([text, numbers]) => (
              <div key={text} className="contents">
                <dt className="identifier">{text || "(none)"}</dt>
                <dd>{count(numbers)}</dd>
              </div>
            ))}
          </dl>
        </section>
      ))}
    </div>
  );
}
