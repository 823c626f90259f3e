import { Link } from "react-router";
import type { Fault } from "../../api/client.ts";
import { useCodebooks } from "../../api/queries.ts";
import { Field } from "./Field.tsx";
import { emptyField, faultsAt, type FieldDraft } from "./form.ts";

const kinds = [
  { word: "codebook", name: "a choice of a codebook" },
  { word: "units", name: "a unit (field unit)" },
  { word: "within", name: "a choice within another field" },
  { word: "text", name: "a text" },
] as const;

/** What the series takes for the fields of the record. */
export function RecordFields({
  fields,
  faults,
  onChange,
}: {
  fields: FieldDraft[];
  faults: Fault[];
  onChange: (fields: FieldDraft[]) => void;
}) {
  const books = useCodebooks();
  const change = (id: number, part: Partial<FieldDraft>) =>
    onChange(fields.map((each) => (each.id === id ? { ...each, ...part } : each)));
  return (
    <fieldset className="grid gap-3">
      <legend className="font-semibold mb-2">
        Fields of the record <span className="quiet font-normal text-sm">are required with every number</span>
      </legend>
      {faultsAt(faults, "fields").map((fault) => (
        <p key={fault.problem} className="text-error text-sm">
          {fault.problem}; {fault.accepted}
        </p>
      ))}
      {fields.map((field, i) => {
        const at = (name: string) => faultsAt(faults, `fields[${i}].${name}`);
        const id = (name: string) => `field-${i}-${name}`;
        return (
          <div key={field.id} className="sheet p-3 grid gap-x-3 gap-y-2 sm:grid-cols-3">
            <Field id={id("name")} label="Field" faults={at("name")}>
              <input
                id={id("name")}
                className="input input-sm w-full font-mono"
                placeholder="group"
                value={field.name}
                autoComplete="off"
                onChange={(event) => change(field.id, { name: event.target.value })}
              />
            </Field>
            <Field id={id("kind")} label="Values" faults={[]}>
              <select
                id={id("kind")}
                className="select select-sm w-full"
                value={field.kind}
                onChange={(event) => change(field.id, { kind: event.target.value as FieldDraft["kind"] })}
              >
                {kinds.map((kind) => (
                  <option key={kind.word} value={kind.word}>
                    {kind.name}
                  </option>
                ))}
              </select>
            </Field>
            {field.kind === "codebook" && (
              <Field id={id("codebook")} label="Codebook" faults={at("codebook")}>
                <select
                  id={id("codebook")}
                  className="select select-sm w-full"
                  value={field.codebook}
                  onChange={(event) => change(field.id, { codebook: event.target.value })}
                >
                  <option value="">choose</option>
                  {(books.data ?? []).map((book) => (
                    <option key={book.key} value={book.key}>
                      {book.title}
                    </option>
                  ))}
                </select>
                <Link className="link text-sm" to="/codebooks">
                  Codebooks
                </Link>
              </Field>
            )}
            {field.kind === "within" && (
              <Field id={id("within")} label="Within" faults={at("within")}>
                <select
                  id={id("within")}
                  className="select select-sm w-full"
                  value={field.within}
                  onChange={(event) => change(field.id, { within: event.target.value })}
                >
                  <option value="">choose</option>
                  {fields
                    .slice(0, i)
                    .filter((each) => each.kind !== "text" && each.name)
                    .map((each) => (
                      <option key={each.id} value={each.name}>
                        {each.name}
                      </option>
                    ))}
                </select>
              </Field>
            )}
            {field.kind === "text" && (
              <div className="grid grid-cols-2 gap-3">
                <Field id={id("longest")} label="Longest" hint="(default: 20)" faults={at("longest")}>
                  <input
                    id={id("longest")}
                    type="number"
                    className="input input-sm w-full"
                    value={field.longest}
                    onChange={(event) => change(field.id, { longest: event.target.value })}
                  />
                </Field>
                <Field id={id("symbols")} label="Symbols" faults={at("symbols")}>
                  <input
                    id={id("symbols")}
                    className="input input-sm w-full"
                    placeholder="letters digits"
                    value={field.symbols}
                    autoComplete="off"
                    onChange={(event) => change(field.id, { symbols: event.target.value })}
                  />
                </Field>
              </div>
            )}
            <button
              type="button"
              className="btn btn-xs justify-self-start col-span-full"
              onClick={() => onChange(fields.filter((each) => each.id !== field.id))}
            >
              Remove field {i + 1}
            </button>
          </div>
        );
      })}
      <button
        type="button"
        className="btn btn-sm justify-self-start"
        onClick={() => onChange([...fields, emptyField()])}
      >
        Add a field
      </button>
    </fieldset>
  );
}
