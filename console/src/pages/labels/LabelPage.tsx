import { useMemo, useState } from "react";
import { Link } from "react-router";
import { LABELS_SHOWN, useLabelPreview, useLayouts } from "../../api/queries.ts";
import { useSession } from "../../parts/Session.tsx";
import { Nothing, Trouble, Waiting } from "../../parts/States.tsx";
import { useSettled } from "../../parts/useSettled.ts";
import { asked, NONE, useLabelFields } from "./choices.ts";
import { JobList } from "./JobList.tsx";
import { LabelForm } from "./LabelForm.tsx";
import { Labels } from "./Labels.tsx";
import { PrintPanel } from "./PrintPanel.tsx";
import { ScanField } from "./ScanField.tsx";

/** Shows labels with the numbers that are expected, prints them, and lists what was printed. */
export function LabelPage() {
  const layouts = useLayouts();
  const { may } = useSession();
  const [key, setKey] = useState("");
  const [choices, setChoices] = useState(NONE);
  const [from, setFrom] = useState(1);
  const layout = layouts.data?.find((each) => each.key === key);
  const fields = useLabelFields(layout, choices);
  const request = useSettled(
    useMemo(() => asked({ layout: key }, choices, fields), [key, choices, fields]),
    300,
  );
  const preview = useLabelPreview(request, from);
  if (layouts.isPending) return <Waiting />;
  if (layouts.isLoadingError) return <Trouble error={layouts.error} />;
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
          <LabelForm
            fields={fields}
            choices={choices}
            set={(next) => {
              setFrom(1);
              setChoices(next);
            }}
          >
            <label className="grid gap-1">
              <span className="text-sm">Layout</span>
              <select
                className="select w-full truncate pr-10 appearance-none"
                value={key}
                onChange={(event) => setKey(event.target.value)}
              >
                <option value="">choose</option>
                {layouts.data.map((each) => (
                  <option key={each.key} value={each.key}>
                    {each.title}, {each.width} × {each.height} mm
                  </option>
                ))}
              </select>
            </label>
          </LabelForm>
        )}
        {may("define") && (
          <p className="px-4 pb-4 text-sm">
            <Link className="link" to="/labels/layouts/new">
              Write a new layout
            </Link>
            {layout && (
              <>
                , or{" "}
                <Link className="link" to={`/labels/layouts/${layout.key}`}>
                  edit this one
                </Link>
              </>
            )}
          </p>
        )}
        <div aria-live="polite" className="px-4 pb-4 empty:hidden">
          {request && preview.isPending && (
            <progress className="progress progress-primary w-full" aria-label="Drawing" />
          )}
          {request && preview.isError && <Trouble error={preview.error} />}
        </div>
      </section>
      {request && preview.data && !preview.isError && (
        <>
          {may("allocate") && <PrintPanel request={request} preview={preview.data} />}
          <Labels preview={preview.data} from={from} size={LABELS_SHOWN} turn={setFrom} />
        </>
      )}
      <JobList />
      <ScanField />
    </div>
  );
}
