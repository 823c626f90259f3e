import { useState } from "react";
import type { LabelRequest, LayoutView } from "../../api/client.ts";
import {
  inUse,
  LABELS_SHOWN,
  useKinds,
  useLabelPreview,
  useLayouts,
  useSeriesList,
  useUnits,
} from "../../api/queries.ts";
import { Nothing, Trouble, Waiting } from "../../parts/States.tsx";
import { useSettled } from "../../parts/useSettled.ts";
import { Labels } from "./Labels.tsx";
import { ScanField } from "./ScanField.tsx";

type Choices = {
  layout: string;
  numbers: string;
  unit: string;
  quantity: string;
  copies: string;
  fields: Record<string, string>;
};

const NONE: Choices = { layout: "", numbers: "", unit: "", quantity: "1", copies: "1", fields: {} };

/** What a kind or a series is chosen by: a letter for which of them, and its key. */
const asked = (choices: Choices): LabelRequest | undefined => {
  const [sort, key] = [choices.numbers.slice(0, 2), choices.numbers.slice(2)];
  if (!choices.layout || !key || (sort === "k:" && !choices.unit)) return undefined;
  return {
    layout: choices.layout,
    ...(sort === "k:" ? { kind: key } : { series: key }),
    ...(choices.unit ? { unit: choices.unit } : {}),
    fields: Object.fromEntries(Object.entries(choices.fields).filter(([, value]) => value.trim() !== "")),
    quantity: Number(choices.quantity) || 0,
    copies: Number(choices.copies) || 0,
  };
};

/** Shows labels before they are printed, with the numbers that are expected. */
export function LabelPage() {
  const layouts = useLayouts();
  const [choices, setChoices] = useState(NONE);
  const [from, setFrom] = useState(1);
  const request = useSettled(asked(choices), 300);
  const preview = useLabelPreview(request, from);
  if (layouts.isPending) return <Waiting />;
  if (layouts.isLoadingError) return <Trouble error={layouts.error} />;
  const layout = layouts.data.find((each) => each.key === choices.layout);
  return (
    <div className="sheets">
      <h1 className="text-2xl font-semibold">Labels</h1>
      <section className="sheet" aria-labelledby="preview">
        <h2 id="preview" className="sheet-title">
          Preview
        </h2>
        {layouts.data.length === 0 ? (
          <Nothing>
            No layouts are defined. Write one in a definition file, and apply it with{" "}
            <span className="identifier">youngtally apply FILE</span>.
          </Nothing>
        ) : (
          <Form
            layouts={layouts.data}
            layout={layout}
            choices={choices}
            set={(next) => {
              setFrom(1);
              setChoices(next);
            }}
          />
        )}
        <div aria-live="polite" className="px-4 pb-4 empty:hidden">
          {request && preview.isPending && (
            <progress className="progress progress-primary w-full" aria-label="Drawing" />
          )}
          {request && preview.isError && <Trouble error={preview.error} />}
        </div>
      </section>
      {request && preview.data && !preview.isError && (
        <Labels preview={preview.data} from={from} size={LABELS_SHOWN} turn={setFrom} />
      )}
      <ScanField />
    </div>
  );
}

function Form({
  layouts,
  layout,
  choices,
  set,
}: {
  layouts: LayoutView[];
  layout: LayoutView | undefined;
  choices: Choices;
  set: (next: Choices) => void;
}) {
  const kinds = useKinds();
  const units = useUnits();
  const series = useSeriesList();
  const change = (name: keyof Choices) => (event: { target: { value: string } }) =>
    set({ ...choices, [name]: event.target.value });
  const titles = new Map(layout?.ask.map((each) => [each.name, each.title]));
  const names = layout ? [...new Set([...layout.ask.map((each) => each.name), ...layout.fields])] : [];
  return (
    <form className="p-4 grid gap-4" aria-label="Labels" onSubmit={(event) => event.preventDefault()}>
      <p className="quiet">Every label with the number that would be allocated now. Nothing is allocated.</p>
      <div className="grid gap-3 sm:grid-cols-3">
        <label className="grid gap-1">
          <span className="text-sm">Layout</span>
          <select className="select w-full" value={choices.layout} onChange={change("layout")}>
            <option value="">choose</option>
            {layouts.map((each) => (
              <option key={each.key} value={each.key}>
                {each.title}, {each.width} × {each.height} mm
              </option>
            ))}
          </select>
        </label>
        <label className="grid gap-1">
          <span className="text-sm">Numbers of</span>
          <select className="select w-full" value={choices.numbers} onChange={change("numbers")}>
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
          <select className="select w-full" value={choices.unit} onChange={change("unit")}>
            <option value="">choose</option>
            {inUse(units.data).map((each) => (
              <option key={each.key} value={each.key}>
                {each.title}
              </option>
            ))}
          </select>
        </label>
        <Count name="Quantity" value={choices.quantity} set={change("quantity")} />
        <Count name="Copies of each" value={choices.copies} set={change("copies")} />
        {names.map((name) => (
          <label key={name} className="grid gap-1">
            <span className="text-sm">{titles.get(name) ?? name}</span>
            <input
              className="input w-full"
              autoComplete="off"
              value={choices.fields[name] ?? ""}
              onChange={(event) => set({ ...choices, fields: { ...choices.fields, [name]: event.target.value } })}
            />
          </label>
        ))}
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
