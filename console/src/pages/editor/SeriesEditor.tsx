import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { define, Problem } from "../../api/client.ts";
import { useDefinition, usePreview, useStatus } from "../../api/queries.ts";
import { Trouble, Waiting } from "../../parts/States.tsx";
import { useSettled } from "../../parts/useSettled.ts";
import { Field } from "./Field.tsx";
import { draftOf, emptyDraft, faultsAt, formOf, pathOf, type Draft, type Single, type TextName } from "./form.ts";
import { EditConflict, together } from "./EditConflict.tsx";
import { OtherProperties } from "./OtherProperties.tsx";
import { PatternField } from "./PatternField.tsx";
import { PreviewPanel } from "./PreviewPanel.tsx";
import { RecordFields } from "./RecordFields.tsx";
import { RangeFields } from "./RangeFields.tsx";
import { RestartFields } from "./RestartFields.tsx";

/** Whether a section begins open: it stays as the reader leaves it, also when its last field is emptied. */
const isUsed = (...values: string[]): boolean => values.some((value) => value !== "");

export function NewSeries() {
  const status = useStatus();
  if (!status.data) return status.isError ? <Trouble error={status.error} /> : <Waiting />;
  return <Editor draft={emptyDraft(status.data.today)} />;
}

export function EditSeries() {
  const { key = "" } = useParams();
  const found = useDefinition(key);
  if (!found.data) return found.isError ? <Trouble error={found.error} /> : <Waiting />;
  return <Editor draft={draftOf(found.data.form)} version={found.data.version} />;
}

function Editor({ draft: first, version: begunOn }: { draft: Draft; version?: number }) {
  const exists = begunOn !== undefined;
  const [begun, setBegun] = useState(first);
  const [draft, setDraft] = useState(first);
  const [version, setVersion] = useState(begunOn);
  const [date, setDate] = useState("");
  const [given, setGiven] = useState<Record<string, string>>({});
  const queries = useQueryClient();
  const navigate = useNavigate();
  const form = useMemo(() => formOf(draft), [draft]);
  const preview = usePreview(useSettled(form, 150), date, useSettled(given, 150));
  const [touched, setTouched] = useState(exists);
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
  const text = (name: TextName, label: string, hint?: string, placeholder?: string) => {
    const own = faultsAt(faults, pathOf(name));
    return (
      <Field id={name} label={label} hint={hint} faults={own}>
        <input
          id={name}
          className={`input w-full ${name === "title" ? "" : "font-mono"} ${own.length > 0 ? "input-error" : ""}`}
          aria-invalid={own.length > 0}
          aria-describedby={`${name}-faults`}
          placeholder={placeholder}
          value={draft[name]}
          disabled={name === "key" && exists}
          autoComplete="off"
          spellCheck={false}
          onChange={(event) => change({ [name]: event.target.value })}
        />
      </Field>
    );
  };
  const choice = (name: Single, label: string, options: [string, string][]) => (
    <Field id={name} label={label} faults={faultsAt(faults, name)}>
      <select
        id={name}
        className="select w-full"
        value={draft[name]}
        onChange={(event) => change({ [name]: event.target.value })}
      >
        {options.map(([value, shown]) => (
          <option key={value} value={value}>
            {shown}
          </option>
        ))}
      </select>
    </Field>
  );
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        setTouched(true);
        save.mutate();
      }}
    >
      <p className="text-sm mb-1">
        <Link className="link" to="/series">
          Series
        </Link>
        {exists && (
          <>
            {" "}
            <span aria-hidden="true">/</span>{" "}
            <Link className="link identifier" to={`/series/${begun.key}`}>
              {begun.key}
            </Link>
          </>
        )}
      </p>
      <h1 className="text-2xl font-semibold mb-5">{exists ? `Edit ${begun.title}` : "New series"}</h1>
      <div className="sheets lg:grid-cols-[minmax(0,1fr)_22rem] items-start">
        <div className="grid gap-4">
          <div className="grid gap-4 sm:grid-cols-2">
            {text("key", "Key", undefined, "invoice-works")}
            {text("namespace", "Namespace", "(default: the key)", "invoice")}
          </div>
          {text("title", "Title", undefined, "Invoices of the works")}
          <OtherProperties exists={exists} draft={draft} faults={faults} onChange={change} />
          <PatternField
            value={draft.pattern}
            faults={faultsAt(faults, "pattern")}
            onChange={(pattern) => change({ pattern })}
          />
          <RecordFields fields={draft.fields} faults={faults} onChange={(fields) => change({ fields })} />
          <RestartFields
            restarts={draft.restarts}
            fields={draft.fields.map((field) => field.name)}
            faults={faultsAt(faults, "restarts")}
            onChange={(restarts) => change({ restarts })}
          />
          <details className="sheet" open={isUsed(begun.locale, begun.fiscalYearStarts, begun.longest, begun.symbols)}>
            <summary className="px-4 py-2 cursor-pointer text-sm font-semibold">
              Dates and limits of identifiers
            </summary>
            <div className="p-4 pt-2 grid gap-4 sm:grid-cols-2">
              {text("locale", "Names of months in", "(default: en)", "de")}
              {text("fiscalYearStarts", "Fiscal year begins in month", "(default: 1)", "4")}
              {text("longest", "Most symbols", "(default: any)", "15")}
              {text("symbols", "Symbols allowed", "(default: any)", "letters digits -")}
            </div>
          </details>
          <details className="sheet" open={isUsed(begun.order, begun.skipsValues, begun.skipsContaining, begun.proof)}>
            <summary className="px-4 py-2 cursor-pointer text-sm font-semibold">Order and skipped values</summary>
            <div className="p-4 pt-2 grid gap-4 sm:grid-cols-2">
              {choice("order", "Order of values", [
                ["", "in sequence"],
                ["scattered", "scattered, hard to guess"],
                ["repeating", "repeating: from the first again after the last"],
              ])}
              {choice("proof", "Uniqueness", [
                ["", "proved for all numbers"],
                ["waived", "looked up for each number"],
              ])}
              {text("skipsValues", "Skipped values", "(separated by commas)", "13, 4000-4999")}
              {text("skipsContaining", "Skip counts that contain", "(separated by commas)", "13, 666")}
            </div>
          </details>
          <details className="sheet" open={isUsed(begun.typed, begun.gaps, begun.returns, begun.chronological)}>
            <summary className="px-4 py-2 cursor-pointer text-sm font-semibold">
              Rules for returned and typed numbers
            </summary>
            <div className="p-4 pt-2 grid gap-4 sm:grid-cols-2">
              {choice("gaps", "A returned number", [
                ["", "is issued next: no gaps"],
                ["allowed", "becomes void: gaps are allowed"],
              ])}
              {choice("returns", "Issued numbers", [
                ["", "can be returned unused"],
                ["refused", "cannot be returned"],
              ])}
              {choice("chronological", "Dates", [
                ["", "in any order"],
                ["true", "chronological: none before the newest"],
              ])}
              {choice("typed", "Typed numbers", [
                ["", "are refused"],
                ["allowed", "are allowed"],
                ["required", "are required"],
              ])}
            </div>
          </details>
          <RangeFields ranges={draft.ranges} faults={faults} onChange={(ranges) => change({ ranges })} />
          {save.error instanceof Problem && save.error.status === 412 && exists ? (
            <EditConflict
              begun={begun}
              mine={draft}
              onTake={change}
              onGoOn={(newer) => {
                setDraft(together(begun, draft, newer.draft));
                setBegun(newer.draft);
                setVersion(newer.version);
                save.reset();
              }}
            />
          ) : (
            save.isError && <Trouble error={save.error} />
          )}
          <div className="flex gap-3">
            <button type="submit" className="btn btn-primary" aria-busy={save.isPending}>
              {exists ? "Save the change" : "Define the series"}
            </button>
            <Link className="btn btn-ghost" to={exists ? `/series/${begun.key}` : "/series"}>
              Cancel
            </Link>
          </div>
        </div>
        <PreviewPanel
          preview={touched ? preview.data : undefined}
          error={preview.error}
          date={date}
          onDate={setDate}
          fields={form.fields ?? []}
          given={given}
          onGiven={setGiven}
        />
      </div>
    </form>
  );
}
