import type { FieldForm, Fault, Preview } from "../../api/client.ts";
import { FieldInputs } from "../../parts/FieldInputs.tsx";
import { Trouble } from "../../parts/States.tsx";
import { count } from "../../parts/words.ts";

/** Where a fault stands; its text is there. One without a place of its own is told here. */
function FaultPlace({ fault }: { fault: Fault }) {
  const field = /^fields\[(\d+)\]\.(.+)$/.exec(fault.path);
  const range = /^ranges\[(\d+)\]\.(.+)$/.exec(fault.path);
  const [id, name] = range
    ? [
        `range-${range[1]}-${range[2] === "warn-when-left" ? "warnWhenLeft" : range[2]}`,
        `${range[2]} of range ${Number(range[1]) + 1}`,
      ]
    : field
      ? [`field-${field[1]}-${field[2]}`, `${field[2]} of field ${Number(field[1]) + 1}`]
      : fault.path.startsWith("skips")
        ? [fault.path.startsWith("skips.containing") ? "skipsContaining" : "skipsValues", "skips"]
        : [fault.path.replace(/\[.*/, ""), fault.path.replace(/\[.*/, "")];
  if (document.getElementById(id))
    return (
      <button type="button" className="link" onClick={() => document.getElementById(id)?.focus()}>
        {name}
      </button>
    );
  return (
    <>
      <span className="identifier">{fault.path}</span> {fault.problem}. <span className="quiet">{fault.accepted}</span>
    </>
  );
}

/** The two numbers that would be alike, side by side. */
function ClashTable({ clash }: { clash: NonNullable<Fault["clash"]> }) {
  const rows: [string, (way: typeof clash.one) => React.ReactNode][] = [
    ["Series", (way) => way.series],
    ["Value", (way) => way.value],
    ["Range", (way) => way.range],
    ["Lane", (way) => way.lane || "the only one"],
    ["On", (way) => way.date],
    ...(Object.keys({ ...clash.one.fields, ...clash.other.fields }).length > 0
      ? [
          [
            "With",
            (way) =>
              Object.entries(way.fields)
                .map(([name, value]) => `${name} ${value}`)
                .join(", ") || "—",
          ] as [string, (way: typeof clash.one) => React.ReactNode],
        ]
      : []),
  ];
  return (
    <table className="table table-xs mt-2" data-testid="clash">
      <caption className="text-left pb-1">
        <span className="identifier font-semibold">{clash.text}</span> would be issued twice
      </caption>
      <thead>
        <tr>
          <th scope="col">
            <span className="sr-only">What</span>
          </th>
          <th scope="col">First</th>
          <th scope="col">Second</th>
        </tr>
      </thead>
      <tbody>
        {rows.map(([name, of]) => (
          <tr key={name}>
            <th scope="row" className="font-normal quiet">
              {name}
            </th>
            <td>{of(clash.one)}</td>
            <td>{of(clash.other)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** An identifier with its check symbols marked. */
function Checked({ text, checks }: { text: string; checks: { from: number; to: number }[] }) {
  const parts: React.ReactNode[] = [];
  let at = 0;
  for (const check of checks) {
    parts.push(
      text.slice(at, check.from),
      <span key={check.from} className="check-symbol" title="check symbol">
        {text.slice(check.from, check.to)}
      </span>,
    );
    at = check.to;
  }
  return (
    <span>
      {parts}
      {text.slice(at)}
    </span>
  );
}

/** The next ten identifiers as the service would give them, or the faults that keep it from doing so. */
export function PreviewPanel({
  preview,
  error,
  date,
  onDate,
  fields,
  given,
  onGiven,
}: {
  preview?: Preview;
  error: unknown;
  date: string;
  onDate: (date: string) => void;
  fields: FieldForm[];
  given: Record<string, string>;
  onGiven: (given: Record<string, string>) => void;
}) {
  return (
    <section className="sheet lg:sticky lg:top-6" aria-labelledby="preview">
      <h2 id="preview" className="sheet-title">
        Preview
      </h2>
      <div className="p-4 grid gap-3">
        <label className="grid gap-1">
          <span className="text-sm">
            Date <span className="quiet">(default: today, or the first date of a range)</span>
          </span>
          <input
            type="date"
            className="input input-sm w-44"
            value={date}
            onChange={(event) => onDate(event.target.value)}
          />
        </label>
        <FieldInputs rules={fields.filter((field) => field.name)} values={given} onChange={onGiven} small />
        <div aria-live="polite" className="grid gap-3">
          {error ? <Trouble error={error} /> : null}
          {preview && preview.faults.length > 0 && (
            <div className="border-l-4 border-error bg-base-200 px-4 py-3">
              <p className="font-semibold text-error">
                {preview.faults.length === 1 ? "1 fault" : `${preview.faults.length} faults`}
              </p>
              <ul className="text-sm grid gap-2 mt-2">
                {preview.faults.map((fault) => (
                  <li key={fault.path + fault.problem}>
                    <FaultPlace fault={fault} />
                    {fault.clash && <ClashTable clash={fault.clash} />}
                  </li>
                ))}
              </ul>
            </div>
          )}
          {preview && preview.faults.length === 0 && (
            <>
              {preview.fieldFault && (
                <p className="border-l-4 border-error bg-base-200 px-4 py-2 text-sm">{preview.fieldFault}</p>
              )}
              {!preview.fieldFault && (
                <p className="text-sm">
                  On {preview.date}
                  {Object.entries(preview.fields)
                    .map(([name, value]) => `, ${name} ${value}`)
                    .join("")}
                  {preview.left === undefined ? "" : `, ${count(preview.left)} left`}:
                </p>
              )}
              <ol className="grid gap-px" data-testid="coming">
                {preview.next.map((coming) => (
                  <li key={coming.position} className="identifier bg-base-200 px-3 py-1.5 flex justify-between gap-4">
                    <Checked text={coming.identifier} checks={coming.checks} />
                    <span className="quiet text-sm">
                      range {coming.range}
                      {coming.lane && `, ${coming.lane}`}
                    </span>
                  </li>
                ))}
              </ol>
              {preview.slips.map((slip) => (
                <p
                  key={slip.remark}
                  className="border-l-4 border-warning bg-base-200 px-4 py-2 text-sm"
                  data-testid="slip"
                >
                  <strong>Possible mistake:</strong> <span className="identifier">{slip.path}</span> {slip.remark}.
                </p>
              ))}
              {preview.next.length === 0 && !preview.fieldFault && (
                <p className="quiet">No active range on this date.</p>
              )}
            </>
          )}
        </div>
      </div>
    </section>
  );
}
