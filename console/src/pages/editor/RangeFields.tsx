import type { Fault } from "../../api/client.ts";
import { Field } from "./Field.tsx";
import { emptyRange, faultsAt, type RangeDraft } from "./form.ts";

const fields: { name: keyof Omit<RangeDraft, "id">; path: string; label: string; type: string }[] = [
  { name: "first", path: "first", label: "First", type: "number" },
  { name: "last", path: "last", label: "Last", type: "number" },
  { name: "step", path: "step", label: "Step", type: "number" },
  { name: "opens", path: "opens", label: "Opens", type: "date" },
  { name: "closes", path: "closes", label: "Closes", type: "date" },
  { name: "warnWhenLeft", path: "warn-when-left", label: "Warn when left", type: "number" },
  { name: "warnDaysBefore", path: "warn-days-before", label: "Warn days before it closes", type: "number" },
];

/** The ranges of the series being edited. */
export function RangeFields({
  ranges,
  faults,
  onChange,
}: {
  ranges: RangeDraft[];
  faults: Fault[];
  onChange: (ranges: RangeDraft[]) => void;
}) {
  return (
    <fieldset className="grid gap-3">
      <legend className="font-semibold mb-2">
        Ranges <span className="quiet font-normal text-sm">are used in this order</span>
      </legend>
      {faultsAt(faults, "ranges").map((fault) => (
        <p key={fault.problem} className="text-error text-sm">
          {fault.problem}; {fault.accepted}
        </p>
      ))}
      {ranges.map((range, i) => (
        <div key={range.id} className="sheet p-3 grid gap-x-3 gap-y-2 grid-cols-2 sm:grid-cols-3">
          {fields.map((field) => {
            const id = `range-${i}-${field.name}`;
            const own = faultsAt(faults, `ranges[${i}].${field.path}`);
            return (
              <Field
                key={field.name}
                id={id}
                label={field.label}
                hint={field.name === "closes" ? "(default: never)" : undefined}
                faults={own}
              >
                <input
                  id={id}
                  type={field.type}
                  className={`input input-sm w-full ${own.length > 0 ? "input-error" : ""}`}
                  aria-invalid={own.length > 0}
                  aria-describedby={`${id}-faults`}
                  value={range[field.name]}
                  onChange={(event) =>
                    onChange(
                      ranges.map((each) =>
                        each.id === range.id ? { ...each, [field.name]: event.target.value } : each,
                      ),
                    )
                  }
                />
              </Field>
            );
          })}
          {ranges.length > 1 && (
            <button
              type="button"
              className="btn btn-xs justify-self-start col-span-full"
              onClick={() => onChange(ranges.filter((each) => each.id !== range.id))}
            >
              Remove range {i + 1}
            </button>
          )}
        </div>
      ))}
      <button
        type="button"
        className="btn btn-sm justify-self-start"
        onClick={() => onChange([...ranges, emptyRange()])}
      >
        Add a range
      </button>
    </fieldset>
  );
}
