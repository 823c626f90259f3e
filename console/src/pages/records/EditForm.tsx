import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Problem, put, type KindView, type RecordAnswer, type RecordView } from "../../api/client.ts";
import { useUnits } from "../../api/queries.ts";
import { useAct } from "../../api/useAct.ts";
import { FieldInputs } from "../../parts/FieldInputs.tsx";
import { Trouble } from "../../parts/States.tsx";
import { LineEditor } from "./LineEditor.tsx";
import { asked, given, linesOf, sentLines, unitTitle, type Line, type Values } from "./record.ts";

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

const held = (record: RecordView, unit: string): Values =>
  record.units.find((each) => each.unit === unit)?.fields ?? {};

/** What a record holds in a unit, to be changed. What somebody else changes meanwhile is shown, and nothing that was typed is lost. */
export function EditForm({
  record,
  kind,
  unit,
  mayEdit,
}: {
  record: RecordView;
  kind: KindView;
  unit: string;
  mayEdit: boolean;
}) {
  const queries = useQueryClient();
  const units = useUnits();
  const [base, setBase] = useState(record);
  const [values, setValues] = useState<Values>(held(record, unit));
  const [lines, setLines] = useState<Line[]>(linesOf(record));
  const [saved, setSaved] = useState(false);
  const fieldsTouched = !same(given(values), given(held(base, unit)));
  const linesTouched = !same(sentLines(lines), sentLines(linesOf(base)));
  const touched = fieldsTouched || linesTouched;
  const begin = (from: RecordView, next: Values, nextLines: Line[]) => {
    setBase(from);
    setValues(next);
    setLines(nextLines);
  };
  const save = useMutation({
    mutationFn: () =>
      put<RecordAnswer>(
        `/records/${record.record}`,
        { unit, fields: given(values), lines: kind.lines.length > 0 ? sentLines(lines) : undefined },
        base.version,
      ),
    onSuccess: (answer) => {
      begin(answer.record, held(answer.record, unit), linesOf(answer.record));
      setSaved(true);
    },
    onSettled: () => void queries.invalidateQueries({ queryKey: ["records"] }),
  });
  const fix = useAct<RecordAnswer>();
  // Somebody else saved: what nobody touched here goes along by itself.
  const moved = record.version > base.version && !save.isPending;
  if (moved && !touched) begin(record, held(record, unit), linesOf(record));
  const refused = save.error instanceof Problem ? save.error : undefined;
  const field = /^fields\.([^[]+)$/.exec(refused?.field ?? "")?.[1];
  const line = /lines\[(\d+)]/.exec(refused?.field ?? "")?.[1];
  const alike = kind.fields
    .filter((each) => !each.filled && (kind.agree.includes(each.name) || kind.knownBy.includes(each.name)))
    .map((each) => each.title);
  const filled = kind.fields.filter((each) => each.filled && held(record, unit)[each.name]);
  return (
    <form
      className="sheet"
      aria-labelledby="holds"
      onSubmit={(event) => {
        event.preventDefault();
        setSaved(false);
        if (touched && !save.isPending) save.mutate();
      }}
    >
      <h2 id="holds" className="sheet-title">
        Fields in {unitTitle(units.data, unit)}
      </h2>
      <div className="p-4 grid gap-4">
        {filled.length > 0 && (
          <dl className="flex flex-wrap gap-x-8 gap-y-1">
            {filled.map((each) => (
              <div key={each.name}>
                <dt className="text-sm quiet">{each.title}</dt>
                <dd className={each.name === record.into ? "identifier font-semibold" : ""}>
                  {held(record, unit)[each.name]}
                </dd>
              </div>
            ))}
          </dl>
        )}
        <fieldset disabled={!mayEdit} className="grid gap-4">
          <div className="grid gap-3 sm:grid-cols-2">
            <FieldInputs
              rules={asked(kind)}
              values={values}
              onChange={(next) => {
                setValues(next);
                setSaved(false);
              }}
              remarks={field && refused ? { [field]: refused.message } : {}}
              prefix="edit-"
            />
          </div>
          {kind.lines.length > 0 && (
            <LineEditor
              kind={kind}
              lines={lines}
              onChange={(next) => {
                setLines(next);
                setSaved(false);
              }}
              fixed={record.fixed}
              last={record.lastLine}
              faulty={line === undefined ? undefined : Number(line)}
              remark={refused?.message}
            />
          )}
          {mayEdit && (
            <div className="flex flex-wrap gap-3 items-center">
              <button type="submit" className="btn btn-primary" aria-busy={save.isPending} disabled={!touched}>
                Save
              </button>
              {kind.lines.length > 0 && !record.fixed && (
                <button
                  type="button"
                  className="btn"
                  aria-busy={fix.isPending}
                  disabled={touched}
                  onClick={() => fix.mutate({ path: `/records/${record.record}/fixings`, body: { unit } })}
                >
                  Freeze lines
                </button>
              )}
              {record.units.length > 1 && alike.length > 0 && (
                <span className="quiet text-sm">The same in all units: {alike.join(", ")}.</span>
              )}
            </div>
          )}
        </fieldset>
        <div aria-live="polite" className="grid gap-3 empty:hidden">
          {moved && touched && (
            <EditConflict
              before={base}
              now={record}
              kind={kind}
              unit={unit}
              mine={values}
              linesTouched={linesTouched}
              onBoth={() => {
                begin(
                  record,
                  merged(held(base, unit), held(record, unit), values),
                  linesTouched
                    ? lines.filter(
                        (each) =>
                          each.number === undefined || record.lines.some((other) => other.number === each.number),
                      )
                    : linesOf(record),
                );
                save.reset();
              }}
            />
          )}
          {save.isError && !(moved && touched) && <Trouble error={save.error} />}
          {fix.isError && <Trouble error={fix.error} />}
          {saved && !touched && (
            <p className="border-l-4 border-success bg-base-200 px-4 py-2 text-sm" data-testid="saved">
              Saved. Its number is {record.identifier}, as before.
            </p>
          )}
        </div>
      </div>
    </form>
  );
}

/** What I changed, over what it is now. */
const merged = (before: Values, now: Values, mine: Values): Values => {
  const both: Values = { ...now };
  for (const name of new Set([...Object.keys(before), ...Object.keys(mine)]))
    if ((mine[name] ?? "") !== (before[name] ?? "")) both[name] = mine[name] ?? "";
  return both;
};

/** Somebody else saved while something was typed here. */
function EditConflict({
  before,
  now,
  kind,
  unit,
  mine,
  linesTouched,
  onBoth,
}: {
  before: RecordView;
  now: RecordView;
  kind: KindView;
  unit: string;
  mine: Values;
  linesTouched: boolean;
  onBoth: () => void;
}) {
  const was = held(before, unit);
  const is = held(now, unit);
  const changed = kind.fields.filter((field) => (was[field.name] ?? "") !== (is[field.name] ?? ""));
  const linesMoved = !same(before.lines, now.lines);
  return (
    <section
      className="border-l-4 border-warning bg-base-200 px-4 py-3 grid gap-2"
      aria-labelledby="meanwhile"
      data-testid="conflict"
    >
      <h3 id="meanwhile" className="font-semibold">
        Edit conflict: somebody else changed this record
      </h3>
      <table className="table table-sm">
        <thead>
          <tr>
            <th scope="col">Field</th>
            <th scope="col">Before</th>
            <th scope="col">Their edit</th>
            <th scope="col">Your edit</th>
          </tr>
        </thead>
        <tbody>
          {changed.map((field) => (
            <tr key={field.name}>
              <th scope="row" className="font-normal">
                {field.title}
              </th>
              <td>{was[field.name] ?? "—"}</td>
              <td>{is[field.name] ?? "—"}</td>
              <td>{(mine[field.name] ?? "") === (was[field.name] ?? "") ? "unchanged" : mine[field.name] || "—"}</td>
            </tr>
          ))}
          {linesMoved && (
            <tr>
              <th scope="row" className="font-normal">
                Lines
              </th>
              <td>{before.lines.length}</td>
              <td>{now.lines.length}</td>
              <td>{linesTouched ? "changed as well" : "unchanged"}</td>
            </tr>
          )}
          {changed.length === 0 && !linesMoved && (
            <tr>
              <td colSpan={4}>No changes in this unit.</td>
            </tr>
          )}
        </tbody>
      </table>
      <button type="button" className="btn btn-sm btn-primary justify-self-start" onClick={onBoth}>
        Merge
      </button>
      <p className="quiet text-sm">
        Merge keeps your edit where you made one, and their edit everywhere else.
        {linesMoved &&
          linesTouched &&
          " Lines that they removed are removed; lines that they added appear after you save or cancel."}
      </p>
    </section>
  );
}
