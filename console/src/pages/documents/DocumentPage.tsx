import { useCallback, useMemo, useState } from "react";
import type { DocumentFile, DocumentPlan, NumberedDocument } from "../../api/client.ts";
import { useDocumentPlan } from "../../api/queries.ts";
import { useAct } from "../../api/useAct.ts";
import { FaultList } from "../../parts/FaultList.tsx";
import { Nothing, Trouble, Waiting } from "../../parts/States.tsx";
import { useSettled } from "../../parts/useSettled.ts";
import { count } from "../../parts/words.ts";
import { ChangeList } from "./ChangeList.tsx";
import { DrawingView } from "./DrawingView.tsx";
import { ItemList } from "./ItemList.tsx";
import { LineList } from "./LineList.tsx";
import { sent, text } from "./files.ts";
import { NumberedPanel } from "./NumberedPanel.tsx";
import { BEGUN, moved, picks, withPicks } from "./rule.ts";

/** The files of a document and the table beside them; another choice has another number. */
type Chosen = { files: DocumentFile[]; table?: DocumentFile; chosen: number };

/** A rule as a text, and beside it what it comes to in a drawing, a table, a part file or a program. */
export function DocumentPage() {
  const [{ files, table, chosen }, setDocument] = useState<Chosen>({ files: [], chosen: 0 });
  const [rule, setRule] = useState(BEGUN);
  const [places, setPlaces] = useState<Record<string, { x: number; y: number }>>({});
  const [done, setDone] = useState<NumberedDocument>();
  const [shown, setShown] = useState(0);
  const asked = useSettled(
    useMemo(
      () => (files.length > 0 ? { request: { rule, files, places, table, items: true }, chosen } : undefined),
      [files, table, chosen, rule, places],
    ),
    300,
  );
  const plan = useDocumentPlan(asked);
  const number = useAct<NumberedDocument>(setDone);
  const faults = plan.data?.faults ?? [];

  const change = (text: string) => {
    setRule(text);
    setDone(undefined);
    number.reset();
  };
  const choose = async (list: FileList | null) => {
    const all = [...(list ?? [])];
    const rules = all.filter((file) => /\.ya?ml$/i.test(file.name));
    const sheets = all.filter((file) => !rules.includes(file));
    if (rules[0]) change(await rules[0].text());
    if (sheets.length === 0) return;
    const read = await Promise.all(sheets.map(sent));
    setDocument((before) => ({ ...before, files: read, chosen: before.chosen + 1 }));
    setPlaces({});
    setShown(0);
    setDone(undefined);
    number.reset();
  };
  const beside = async (file: File | undefined) => {
    const read = file && (await sent(file));
    setDocument((before) => ({ files: before.files, chosen: before.chosen + 1, ...(read ? { table: read } : {}) }));
    setDone(undefined);
    number.reset();
  };
  const pick = (item: string) => {
    const before = picks(rule);
    change(withPicks(rule, before.includes(item) ? before.filter((each) => each !== item) : [...before, item]));
  };
  const place = useCallback(
    (found: Map<string, { x: number; y: number }>) =>
      // A place stays what it was first: that the page became narrower is no change of the document.
      setPlaces((before) =>
        [...found.keys()].every((item) => item in before) ? before : { ...Object.fromEntries(found), ...before },
      ),
    [],
  );

  return (
    <div className="sheets">
      <h1 className="text-2xl font-semibold">Number a document</h1>
      <div className="sheets lg:grid-cols-2 items-start">
        <div className="sheets">
          <form
            className="sheet"
            aria-label="Rule"
            onSubmit={(event) => {
              event.preventDefault();
              // What the plan was made of, not what stands on the page since.
              if (asked)
                number.mutate({
                  path: "/document-numberings",
                  body: {
                    rule,
                    files: asked.request.files,
                    places: asked.request.places,
                    table: asked.request.table,
                    plan: plan.data?.plan,
                  },
                });
            }}
          >
            <h2 className="sheet-title">Sheets and rule</h2>
            <div className="p-4 grid gap-3">
              <label className="grid gap-1">
                <span className="text-sm">
                  Files{" "}
                  <span className="quiet">
                    (the sheets in their order: SVG, CSV, XLSX, JSON, XML, STEP, 3MF or programs, up to 12 MB; a YAML
                    file is the rule)
                  </span>
                </span>
                <input
                  className="file-input w-full max-w-xl"
                  type="file"
                  multiple
                  onChange={(event) => void choose(event.target.files)}
                />
              </label>
              {table !== undefined || /^marks:/m.test(rule) ? (
                <label className="grid gap-1">
                  <span className="text-sm">
                    Table{" "}
                    <span className="quiet">(for programs, if values differ from piece to piece: a row for each)</span>
                  </span>
                  <input
                    className="file-input w-full max-w-xl"
                    type="file"
                    accept=".csv,.xlsx"
                    onChange={(event) => void beside(event.target.files?.[0])}
                  />
                </label>
              ) : null}
              <label className="grid gap-1">
                <span className="text-sm">Rule</span>
                <textarea
                  className="textarea w-full font-mono text-sm whitespace-pre overflow-x-auto"
                  rows={14}
                  spellCheck={false}
                  value={rule}
                  onChange={(event) => change(event.target.value)}
                />
              </label>
              <div aria-live="polite" className="empty:hidden">
                {plan.isError && <Trouble error={plan.error} />}
                {faults.length > 0 && <FaultList faults={faults} label="Faults of the rule and the document" />}
              </div>
              <div className="flex gap-4 items-center flex-wrap">
                <button
                  type="submit"
                  className="btn btn-primary"
                  disabled={
                    !plan.data ||
                    plan.isPlaceholderData ||
                    faults.length > 0 ||
                    plan.data.changes.length + plan.data.filled === 0 ||
                    asked?.request.rule !== rule ||
                    asked.chosen !== chosen
                  }
                  aria-busy={number.isPending}
                >
                  Number
                </button>
                <a
                  className="link"
                  href={`data:application/yaml;charset=utf-8,${encodeURIComponent(rule)}`}
                  download="rule.yaml"
                >
                  Download the rule
                </a>
              </div>
              {number.isError && <Trouble error={number.error} />}
            </div>
          </form>
          {done && <NumberedPanel done={done} />}
        </div>
        {files.length === 0 ? (
          <section className="sheet">
            <Nothing>Choose the files of a document. The service reads them and keeps none of them.</Nothing>
          </section>
        ) : plan.data ? (
          <Found
            plan={plan.data}
            files={files}
            shown={shown}
            show={setShown}
            picked={picks(rule)}
            pick={pick}
            place={place}
            move={(from, to) =>
              change(
                withPicks(
                  rule,
                  moved(
                    plan.data.changes.map((each) => each.item),
                    from,
                    to,
                  ),
                ),
              )
            }
          />
        ) : (
          !plan.isError && <Waiting />
        )}
      </div>
    </div>
  );
}

function Found({
  plan,
  files,
  shown,
  show,
  picked,
  pick,
  place,
  move,
}: {
  plan: DocumentPlan;
  files: DocumentFile[];
  shown: number;
  show: (sheet: number) => void;
  picked: string[];
  pick: (item: string) => void;
  place: (places: Map<string, { x: number; y: number }>) => void;
  move: (from: number, to: number) => void;
}) {
  const changes = useMemo(() => new Map(plan.changes.map((each) => [each.item, each])), [plan.changes]);
  const items = useMemo(() => (plan.items ?? []).filter((each) => each.sheet === shown + 1), [plan.items, shown]);
  const sheet = plan.sheets[shown];
  const file = files[shown];
  const svg = useMemo(() => (file?.name.toLowerCase().endsWith(".svg") ? text(file) : undefined), [file]);
  return (
    <div className="sheets">
      {files.length > 1 && (
        <label className="flex gap-2 items-center">
          <span className="text-sm">Sheet</span>
          <select className="select" value={shown} onChange={(event) => show(Number(event.target.value))}>
            {files.map((each, at) => (
              <option key={each.name} value={at}>
                {each.name}
              </option>
            ))}
          </select>
        </label>
      )}
      {svg !== undefined && sheet && (
        <section className="sheet overflow-hidden" aria-label="Drawing">
          <DrawingView
            sheet={sheet}
            svg={svg}
            items={items}
            changes={changes}
            picked={picked}
            pick={pick}
            place={place}
          />
          <p className="quiet text-sm px-4 py-2">Click texts in the order in which they are to be numbered.</p>
        </section>
      )}
      {plan.lines.length > 0 && <LineList lines={plan.lines} sheets={plan.sheets} />}
      <section className="sheet" aria-labelledby="changes">
        <h2 id="changes" className="sheet-title">
          {count(plan.changes.length)} {plan.changes.length === 1 ? "change" : "changes"}, {count(plan.unchanged)}{" "}
          unchanged
          {plan.allocated > 0 ? `, ${count(plan.allocated)} to allocate` : ""}
          {plan.known > 0 ? `, ${count(plan.known)} allocated earlier for ‘${plan.document ?? ""}’` : ""}
        </h2>
        {plan.changes.length > 0 ? <ChangeList changes={plan.changes} move={move} /> : <Nothing>No changes.</Nothing>}
      </section>
      {svg === undefined && items.length > 0 && <ItemList items={items} picked={picked} pick={pick} />}
      {plan.restarts.length > 0 && plan.groups.length > 0 && <Groups plan={plan} />}
    </div>
  );
}

function Groups({ plan }: { plan: DocumentPlan }) {
  return (
    <section className="sheet" aria-labelledby="groups">
      <h2 id="groups" className="sheet-title">
        Groups
      </h2>
      <div className="overflow-x-auto">
        <table className="table table-sm">
          <thead>
            <tr>
              {plan.restarts.map((each) => (
                <th key={each} scope="col">
                  {each}
                </th>
              ))}
              <th scope="col">Items</th>
              <th scope="col">First</th>
              <th scope="col">Last</th>
            </tr>
          </thead>
          <tbody>
            {plan.groups.map((group) => (
              <tr key={group.values.join("\n")}>
                {group.values.map((value, at) => (
                  <td key={plan.restarts[at]}>{value || "—"}</td>
                ))}
                <td>{count(group.items)}</td>
                <td className="identifier">{group.first || "—"}</td>
                <td className="identifier">{group.last || "—"}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}
