import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { useParams } from "react-router";
import { post, Problem, type Applied, type LayoutView } from "../../api/client.ts";
import { useLabelPreview, useLayout } from "../../api/queries.ts";
import { FaultList } from "../../parts/FaultList.tsx";
import { Trouble, Waiting } from "../../parts/States.tsx";
import { useSettled } from "../../parts/useSettled.ts";
import { asked, NONE, useLabelFields } from "./choices.ts";
import { LabelForm } from "./LabelForm.tsx";
import { Labels } from "./Labels.tsx";

const BEGUN = `layouts:
  - key: my-label
    title: My label
    width: 62
    height: 29
    items:
      - { text: "{identifier}", left: 3, top: 3, width: 36, height: 6, size: 11 }
      - { code: data-matrix, content: "{identifier}", left: 41, top: 4, width: 19, height: 19 }
`;

/** A layout as a text, and beside it the label as it comes out. */
export function LayoutPage() {
  const { key = "new" } = useParams();
  const layout = useLayout(key, key !== "new");
  if (key === "new") return <Editor key="new" text={BEGUN} />;
  if (layout.isError) return <Trouble error={layout.error} />;
  return layout.data ? <Editor key={key} text={layout.data.text} /> : <Waiting />;
}

function Editor({ text: begun }: { text: string }) {
  const queries = useQueryClient();
  const [text, setText] = useState(begun);
  const [choices, setChoices] = useState(NONE);
  const [layout, setLayout] = useState<LayoutView>();
  const fields = useLabelFields(layout, choices);
  const request = useSettled(
    useMemo(() => asked({ definition: text }, choices, fields), [text, choices, fields]),
    300,
  );
  const preview = useLabelPreview(request, 1);
  // What the layout asks for is known once the service has read it.
  if (preview.data && preview.data.layout !== layout) setLayout(preview.data.layout);
  const name = /^\s*-?\s*key:\s*([a-z0-9.-]+)/m.exec(text)?.[1] ?? "layout";
  const apply = useMutation({
    mutationFn: () => post<Applied>("/definitions", { files: [{ name: `layout-${name}.yaml`, text }] }),
    onSettled: () => void queries.invalidateQueries(),
  });
  return (
    <div className="sheets">
      <h1 className="text-2xl font-semibold">A layout of labels</h1>
      <div className="sheets lg:grid-cols-2 items-start">
        <form
          className="sheet"
          aria-label="Layout"
          onSubmit={(event) => {
            event.preventDefault();
            apply.mutate();
          }}
        >
          <label className="sheet-title block" htmlFor="definition">
            Definition
          </label>
          <div className="p-4 grid gap-3">
            <textarea
              id="definition"
              className="textarea w-full font-mono text-sm whitespace-pre overflow-x-auto"
              rows={24}
              spellCheck={false}
              value={text}
              onChange={(event) => {
                apply.reset();
                setText(event.target.value);
              }}
            />
            <button type="submit" className="btn btn-primary justify-self-start" aria-busy={apply.isPending}>
              Apply
            </button>
            <div aria-live="polite" className="empty:hidden">
              {apply.isError && <Trouble error={apply.error} />}
              {apply.data && (
                <p>Applied: {apply.data.organisation.map((part) => `${part.key} ${part.change}`).join(", ")}</p>
              )}
            </div>
          </div>
        </form>
        <div className="sheets">
          <section className="sheet" aria-labelledby="numbers">
            <h2 id="numbers" className="sheet-title">
              Tried with
            </h2>
            <LabelForm fields={fields} choices={choices} set={setChoices} />
            <div aria-live="polite" className="px-4 pb-4 empty:hidden">
              {request && preview.isError && <Faults error={preview.error} />}
            </div>
          </section>
          {request && preview.data && !preview.isError && (
            <Labels preview={preview.data} from={1} size={preview.data.labels} turn={() => undefined} wide />
          )}
        </div>
      </div>
    </div>
  );
}

/** Each fault at its line. */
function Faults({ error }: { error: Error }) {
  const faults = error instanceof Problem ? error.faults : [];
  if (faults.length === 0) return <Trouble error={error} />;
  return <FaultList faults={faults} label="Faults of the layout" />;
}
