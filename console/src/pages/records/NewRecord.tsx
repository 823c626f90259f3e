import { useRef, useState } from "react";
import { Link, useSearchParams } from "react-router";
import type { KindView, RecordAnswer, UnitView } from "../../api/client.ts";
import { Problem } from "../../api/client.ts";
import { inUse, useKinds, useRecordPreview, useUnits } from "../../api/queries.ts";
import { useAct } from "../../api/useAct.ts";
import { FieldInputs } from "../../parts/FieldInputs.tsx";
import { Nothing, Trouble, Waiting } from "../../parts/States.tsx";
import { useSettled } from "../../parts/useSettled.ts";
import { DuplicateCandidates } from "./DuplicateCandidates.tsx";
import { LineEditor } from "./LineEditor.tsx";
import { asked, called, given, sentLines, unitTitle, type Line, type Values } from "./record.ts";

/** The kind and the unit of a new record, those that were chosen last to begin with, and the form for it. */
export function NewRecord() {
  const kinds = useKinds();
  const units = useUnits();
  const [query, setQuery] = useSearchParams();
  const wanted = (name: "kind" | "unit") => query.get(name) ?? localStorage.getItem(`record-${name}`);
  const choose = (next: { kind: string; unit: string }) => {
    localStorage.setItem("record-kind", next.kind);
    localStorage.setItem("record-unit", next.unit);
    setQuery(next);
  };
  if (kinds.isPending || units.isPending) return <Waiting />;
  if (kinds.isLoadingError || units.isLoadingError) return <Trouble error={kinds.error ?? units.error} />;
  const offeredKinds = inUse(kinds.data);
  const offered = inUse(units.data);
  const kind = offeredKinds.find((each) => each.key === wanted("kind")) ?? offeredKinds[0];
  const unit = offered.find((each) => each.key === wanted("unit")) ?? offered.find((each) => each.below) ?? offered[0];
  if (!kind || !unit)
    return (
      <Nothing>
        No kinds of records or no units are defined yet.{" "}
        <Link className="link" to="/routes">
          Kinds and routes
        </Link>{" "}
        lists them.
      </Nothing>
    );
  return (
    <div className="sheets">
      <h1 className="text-2xl font-semibold">New record</h1>
      <div className="flex flex-wrap gap-3">
        <label className="grid gap-1">
          <span className="text-sm">Kind</span>
          <select
            className="select w-44"
            value={kind.key}
            onChange={(event) => choose({ kind: event.target.value, unit: unit.key })}
          >
            {offeredKinds.map((each) => (
              <option key={each.key} value={each.key}>
                {each.title}
              </option>
            ))}
          </select>
        </label>
        <label className="grid gap-1">
          <span className="text-sm">Unit</span>
          <select
            className="select w-56"
            value={unit.key}
            onChange={(event) => choose({ kind: kind.key, unit: event.target.value })}
          >
            {offered.map((each) => (
              <option key={each.key} value={each.key}>
                {each.title}
              </option>
            ))}
          </select>
        </label>
      </div>
      <Form key={`${kind.key} ${unit.key}`} kind={kind} unit={unit} />
    </div>
  );
}

type Given = { answer: RecordAnswer; expected?: string; how: "saved" | "taken" };

/** The form: saved with its number, cleared but for what is sticky, and ready for the next. */
function Form({ kind, unit }: { kind: KindView; unit: UnitView }) {
  const [values, setValues] = useState<Values>({});
  const [lines, setLines] = useState<Line[]>([]);
  const [typed, setTyped] = useState("");
  const [last, setLast] = useState<Given>();
  const expecting = useRef<string | undefined>(undefined);
  const form = useRef<HTMLFormElement>(null);
  const request = {
    kind: kind.key,
    unit: unit.key,
    fields: given(values),
    ...(typed.trim() && { typed: typed.trim() }),
  };
  const preview = useRecordPreview(useSettled(request, 120), true);
  const rules = asked(kind);
  const ready = (next: Given) => {
    setLast(next);
    setValues((before) =>
      Object.fromEntries(
        Object.entries(before).filter(([name]) => kind.fields.some((field) => field.name === name && field.sticky)),
      ),
    );
    setLines([]);
    setTyped("");
    const first = rules.find((rule) => !kind.fields.find((field) => field.name === rule.name)?.sticky) ?? rules[0];
    requestAnimationFrame(() => form.current?.querySelector<HTMLElement>(`#new-${first?.name}`)?.focus());
  };
  const save = useAct<RecordAnswer>((answer) => ready({ answer, expected: expecting.current, how: "saved" }));
  const submit = () => {
    if (save.isPending) return;
    expecting.current = preview.data?.expected;
    save.mutate({
      path: "/records",
      body: { ...request, lines: kind.lines.length > 0 ? sentLines(lines) : undefined },
    });
  };
  const refused = save.error instanceof Problem ? save.error : undefined;
  const field = /^fields\.(.+)$/.exec(refused?.field ?? "")?.[1];
  const line = /^(?:fields\.)?lines\[(\d+)]/.exec(refused?.field ?? "")?.[1];
  // What is only missing yet is said once somebody wants to save.
  const remarks = {
    ...Object.fromEntries(
      (preview.data?.remarks ?? []).filter((remark) => !remark.missing).map((remark) => [remark.field, remark.remark]),
    ),
    ...(field && refused && !given(values)[field] ? { [field]: refused.message } : {}),
  };
  return (
    <div
      className={`grid gap-6 items-start ${kind.lines.length > 0 ? "grid-cols-[minmax(0,1fr)]" : "lg:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]"}`}
    >
      <form
        ref={form}
        className="sheet"
        aria-label={`New ${kind.title}`}
        onSubmit={(event) => {
          event.preventDefault();
          submit();
        }}
      >
        <p className="sheet-title flex flex-wrap justify-between gap-x-4">
          <span>
            {kind.title}, {unit.title}
          </span>
          <span className="font-normal quiet" data-testid="expected">
            {preview.data?.expected ? (
              <>
                expected <span className="identifier font-semibold text-base-content">{preview.data.expected}</span>,
                allocated on saving
              </>
            ) : preview.data?.series ? (
              "the number depends on the fields"
            ) : preview.data ? (
              "missing route"
            ) : (
              ""
            )}
          </span>
        </p>
        <div className="p-4 grid gap-4">
          <div className="grid gap-3 sm:grid-cols-2">
            <FieldInputs rules={rules} values={values} onChange={setValues} remarks={remarks} prefix="new-" />
            {preview.data?.typing && preview.data.typing !== "refused" && (
              <label className="grid gap-1 content-start">
                <span className="text-sm">Number{preview.data.typing === "allowed" ? " (optional)" : ""}</span>
                <input
                  id="new-typed"
                  className="input w-full identifier"
                  autoComplete="off"
                  value={typed}
                  aria-invalid={Boolean(remarks.typed)}
                  aria-describedby="new-typed-remark"
                  onChange={(event) => setTyped(event.target.value)}
                />
                <span
                  id="new-typed-remark"
                  className={`text-sm ${remarks.typed ? "text-error" : "quiet"}`}
                  data-testid="typed-remark"
                >
                  {remarks.typed ?? (typed.trim() && preview.data.expected ? "Not issued yet." : "")}
                </span>
              </label>
            )}
          </div>
          {kind.lines.length > 0 && (
            <LineEditor
              kind={kind}
              lines={lines}
              onChange={setLines}
              faulty={line === undefined ? undefined : Number(line)}
              remark={refused?.message}
            />
          )}
          <div className="flex flex-wrap gap-3 items-center">
            <button type="submit" className="btn btn-primary" aria-busy={save.isPending}>
              Save and next
            </button>
            <span className="quiet text-sm">Press Enter in any field.</span>
          </div>
        </div>
        <div aria-live="polite">
          {save.isError && (
            <div className="px-4 pb-4">
              <Trouble error={save.error} />
            </div>
          )}
          {preview.isError && (
            <div className="px-4 pb-4">
              <Trouble error={preview.error} />
            </div>
          )}
          {last && <LastGiven last={last} kind={kind} unit={unit.key} />}
        </div>
      </form>
      <DuplicateCandidates
        kind={kind}
        unit={unit.key}
        values={values}
        known={preview.data?.known}
        onTaken={(answer) => ready({ answer, how: "taken" })}
      />
    </div>
  );
}

/** The record that was saved last, with its number. */
function LastGiven({ last, kind, unit }: { last: Given; kind: KindView; unit: string }) {
  const units = useUnits();
  const { record, known } = last.answer;
  const faster = last.how === "saved" && !known && last.expected !== undefined && last.expected !== record.identifier;
  return (
    <div className="border-l-4 border-success bg-base-200 px-4 py-3" data-testid="given">
      <p className="text-sm">
        {last.how === "taken"
          ? `Shared with ${unitTitle(units.data, unit)}, with its number`
          : known
            ? "This record already exists"
            : "Saved"}
      </p>
      <p>
        <Link className="identifier font-semibold text-lg link" to={`/records/${record.record}`}>
          {record.identifier}
        </Link>{" "}
        {called(record, kind)}
      </p>
      {faster && (
        <p className="text-sm" data-testid="faster">
          Expected {last.expected}, which somebody else allocated first.
        </p>
      )}
      {known && !record.units.some((each) => each.unit === unit) && (
        <p className="text-sm">Units: {record.units.map((each) => unitTitle(units.data, each.unit)).join(", ")}.</p>
      )}
    </div>
  );
}
