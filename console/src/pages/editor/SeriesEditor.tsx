import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { define, Problem, type SeriesView } from "../../api/client.ts";
import { usePreview, useSeries, useStatus } from "../../api/queries.ts";
import { Trouble, Waiting } from "../../parts/States.tsx";
import { useSettled } from "../../parts/useSettled.ts";
import { Field } from "./Field.tsx";
import { draftOf, emptyDraft, faultsAt, formOf, type Draft } from "./form.ts";
import { PreviewPanel } from "./PreviewPanel.tsx";
import { RangeFields } from "./RangeFields.tsx";

export function NewSeries() {
  const status = useStatus();
  if (!status.data) return status.isError ? <Trouble error={status.error} /> : <Waiting />;
  return <Editor draft={emptyDraft(status.data.today)} />;
}

export function EditSeries() {
  const { key = "" } = useParams();
  const series = useSeries(key, "");
  if (!series.data) return series.isError ? <Trouble error={series.error} /> : <Waiting />;
  return <Editor draft={draftOf(series.data)} series={series.data} />;
}

function Editor({ draft: begun, series }: { draft: Draft; series?: SeriesView }) {
  const [draft, setDraft] = useState(begun);
  const [version] = useState(series?.version);
  const [date, setDate] = useState("");
  const queries = useQueryClient();
  const navigate = useNavigate();
  const form = useMemo(() => formOf(draft), [draft]);
  const preview = usePreview(useSettled(form, 150), date);
  const [touched, setTouched] = useState(series !== undefined);
  const faults = (touched ? preview.data?.faults : undefined) ?? [];
  const change = (part: Partial<Draft>) => {
    setTouched(true);
    setDraft((before) => ({ ...before, ...part }));
  };
  const save = useMutation({
    mutationFn: () => define(form, version),
    onSuccess: (saved) => {
      void queries.invalidateQueries();
      void navigate(`/series/${saved.key}`);
    },
  });
  const text = (name: "key" | "title" | "namespace" | "pattern", label: string, hint?: string, placeholder?: string) => {
    const own = faultsAt(faults, name);
    return (
      <Field id={name} label={label} hint={hint} faults={own}>
        <input id={name} className={`input w-full ${name === "title" ? "" : "font-mono"} ${own.length > 0 ? "input-error" : ""}`} aria-invalid={own.length > 0} aria-describedby={`${name}-faults`} placeholder={placeholder} value={draft[name]} disabled={name === "key" && series !== undefined} autoComplete="off" spellCheck={false} onChange={(event) => change({ [name]: event.target.value })} />
      </Field>
    );
  };
  return (
    <form onSubmit={(event) => { event.preventDefault(); setTouched(true); save.mutate(); }}>
      <p className="text-sm mb-1"><Link className="link" to="/series">Series</Link>{series && <> <span aria-hidden="true">/</span> <Link className="link identifier" to={`/series/${series.key}`}>{series.key}</Link></>}</p>
      <h1 className="text-2xl font-semibold mb-5">{series ? `Edit ${series.title}` : "New series"}</h1>
      <div className="sheets lg:grid-cols-[minmax(0,1fr)_22rem] items-start">
        <div className="grid gap-4">
          <div className="grid gap-4 sm:grid-cols-2">
            {text("key", "Key", undefined, "invoice-works")}
            {text("namespace", "Namespace", "(else the key)", "invoice")}
          </div>
          {text("title", "Title", undefined, "Invoices of the works")}
          {text("pattern", "Pattern", "— literal text, {date yy} and {count 5}", "LW{date yy}-{count 5}")}
          <Field id="restarts" label="The count restarts" faults={faultsAt(faults, "restarts")}>
            <select id="restarts" className="select w-48" value={draft.restarts} onChange={(event) => change({ restarts: event.target.value })}>
              <option value="">never</option><option value="year">each year</option><option value="month">each month</option>
            </select>
          </Field>
          <RangeFields ranges={draft.ranges} faults={faults} onChange={(ranges) => change({ ranges })} />
          {save.isError && <Trouble error={save.error} />}
          {save.error instanceof Problem && save.error.status === 412 && <p className="text-sm">What you typed is still here. <Link className="link" to={`/series/${draft.key}`}>Look at what changed</Link> in the meantime.</p>}
          <div className="flex gap-3"><button type="submit" className="btn btn-primary" aria-busy={save.isPending}>{series ? "Save the change" : "Define the series"}</button><Link className="btn btn-ghost" to={series ? `/series/${series.key}` : "/series"}>Leave it</Link></div>
        </div>
        <PreviewPanel preview={touched ? preview.data : undefined} error={preview.error} date={date} onDate={setDate} />
      </div>
    </form>
  );
}
