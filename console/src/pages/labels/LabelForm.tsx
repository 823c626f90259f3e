import { inUse, useKinds, useSeriesList, useUnits } from "../../api/queries.ts";
import type { Choices, LabelField } from "./choices.ts";
import { TableChoice } from "./TableChoice.tsx";

/** Which numbers the labels bear, how many there are, and the fields that they show. */
export function LabelForm({
  children,
  choices,
  set,
  fields,
}: {
  children?: React.ReactNode;
  choices: Choices;
  set: (next: React.SetStateAction<Choices>) => void;
  fields: LabelField[];
}) {
  const kinds = useKinds();
  const units = useUnits();
  const series = useSeriesList();
  const change = (name: keyof Choices) => (event: { target: { value: string } }) =>
    set({ ...choices, [name]: event.target.value });
  return (
    <form className="p-4 grid gap-4" aria-label="Labels" onSubmit={(event) => event.preventDefault()}>
      <p className="quiet">Every label with the number that would be allocated now. Nothing is allocated.</p>
      <div className="grid gap-3 sm:grid-cols-3">
        {children}
        <label className="grid gap-1">
          <span className="text-sm">Numbers of</span>
          <select
            className="select w-full truncate pr-10 appearance-none"
            value={choices.numbers}
            onChange={change("numbers")}
          >
            <option value="">choose</option>
            <optgroup label="Kinds">
              {inUse(kinds.data).map((each) => (
                <option key={each.key} value={`k:${each.key}`}>
                  {each.title}
                </option>
              ))}
            </optgroup>
            <optgroup label="Series">
              {(series.data ?? []).map((each) => (
                <option key={each.key} value={`s:${each.key}`}>
                  {each.title}
                </option>
              ))}
            </optgroup>
          </select>
        </label>
        <label className="grid gap-1">
          <span className="text-sm">
            Unit {choices.numbers.startsWith("k:") ? "" : <span className="quiet">(optional)</span>}
          </span>
          <select
            className="select w-full truncate pr-10 appearance-none"
            value={choices.unit}
            onChange={change("unit")}
          >
            <option value="">choose</option>
            {inUse(units.data).map((each) => (
              <option key={each.key} value={each.key}>
                {each.title}
              </option>
            ))}
          </select>
        </label>
        <Count
          name={choices.table ? "Quantity for each row" : "Quantity"}
          value={choices.quantity}
          set={change("quantity")}
        />
        <Count name="Copies of each" value={choices.copies} set={change("copies")} />
        {fields.map(({ name, title }) => (
          <label key={name} className="grid gap-1">
            <span className="text-sm">{title}</span>
            <input
              className="input w-full"
              autoComplete="off"
              value={choices.fields[name] ?? ""}
              onChange={(event) => set({ ...choices, fields: { ...choices.fields, [name]: event.target.value } })}
            />
          </label>
        ))}
        <TableChoice table={choices.table} set={(table) => set((before) => ({ ...before, table }))} />
      </div>
    </form>
  );
}

function Count({
  name,
  value,
  set,
}: {
  name: string;
  value: string;
  set: (event: { target: { value: string } }) => void;
}) {
  return (
    <label className="grid gap-1">
      <span className="text-sm">{name}</span>
      <input className="input w-full" type="number" min="1" value={value} onChange={set} />
    </label>
  );
}
