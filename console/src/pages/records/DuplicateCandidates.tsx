import { Link } from "react-router";
import type { KindView, RecordAnswer, RecordView } from "../../api/client.ts";
import { useRecords, useUnits } from "../../api/queries.ts";
import { useAct } from "../../api/useAct.ts";
import { Trouble } from "../../parts/States.tsx";
import { useSettled } from "../../parts/useSettled.ts";
import { called, given, home, unitTitle, type Values } from "./record.ts";

const MOST = 5;
const SHORTEST = 3;

/**
 * Records that may be the one that is being written: found by its name, or known by the same. One that is in another unit
 * is taken over with its number, instead of being made again.
 */
export function DuplicateCandidates({
  kind,
  unit,
  values,
  known,
  onTaken,
}: {
  kind: KindView;
  unit: string;
  values: Values;
  known?: RecordView;
  onTaken: (answer: RecordAnswer) => void;
}) {
  const units = useUnits();
  const name = asked(kind, values);
  const text = useSettled(name, 250);
  const found = useRecords({ text, kind: kind.key }, MOST, text.length >= SHORTEST);
  const take = useAct<RecordAnswer>(onTaken);
  const all = known
    ? [known]
    : name.length >= SHORTEST && text.length >= SHORTEST
      ? (found.data?.pages[0]?.records ?? [])
      : [];
  // What is only carried along from the record before is no reason to differ.
  const sent = (record: RecordView) =>
    given(
      Object.fromEntries(
        Object.entries(values).filter(
          ([field, value]) =>
            value !== home(record).fields[field] &&
            !kind.fields.find((each) => each.name === field && each.type === "text" && kind.agree.includes(field)),
        ),
      ),
    );
  if (all.length === 0) return null;
  return (
    <section className="sheet" aria-labelledby="alike">
      <h2 id="alike" className="sheet-title">
        {known ? "This record already exists" : "Possible duplicates"}
      </h2>
      <ul className="divide-y divide-base-300" data-testid="alike">
        {all.map((record) => {
          const here = record.units.some((each) => each.unit === unit);
          return (
            <li key={record.record} className="px-4 py-3 grid gap-1">
              <p>
                <Link className="identifier link font-semibold" to={`/records/${record.record}`}>
                  {record.identifier}
                </Link>{" "}
                {called(record, kind)}
              </p>
              <p className="text-sm quiet">
                Units: {record.units.map((each) => unitTitle(units.data, each.unit)).join(", ")}
              </p>
              {!here && (
                <button
                  type="button"
                  className="btn btn-sm justify-self-start"
                  aria-busy={take.isPending}
                  onClick={() =>
                    take.mutate({ path: `/records/${record.record}/units`, body: { unit, fields: sent(record) } })
                  }
                >
                  Share with {unitTitle(units.data, unit)}
                </button>
              )}
            </li>
          );
        })}
      </ul>
      <div aria-live="polite">
        {take.isError && (
          <div className="p-4">
            <Trouble error={take.error} />
          </div>
        )}
      </div>
    </section>
  );
}

/** What a record is called that is being written. */
const asked = (kind: KindView, values: Values): string => {
  const first = kind.fields.find(
    (field) => !field.filled && field.type === "text" && field.required && values[field.name]?.trim(),
  );
  return ((first && values[first.name]) ?? "").trim();
};
