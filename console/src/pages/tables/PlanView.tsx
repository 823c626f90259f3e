import { useEffect, useMemo, useState } from "react";
import type { PlanChange, TablePlan } from "../../api/client.ts";
import { count } from "../../parts/words.ts";

const MOST = 300;

const WHY: Record<string, string> = {
  "no-number": "not a number of the series",
  ambiguous: "can be read as several numbers",
  formula: "the cell has a formula",
  outside: "outside the ranges",
  void: "void in the ledger",
  field: "a field is missing or invalid",
  date: "no active range on its date, or in a closed period",
  chronological: "dated before the newest number",
  exhausted: "no number is left",
};

const WORDS: Record<PlanChange["change"], string> = {
  allocate: "gets a number",
  renumber: "gets another number",
  correct: "corrected",
  known: "in the ledger already",
  leave: "left alone",
};

/** A plan: what is done with how many rows, and each of them. */
export function PlanView({
  plan,
  file,
  name,
  chosen,
  choose,
}: {
  plan: TablePlan;
  file: Blob;
  name: string;
  chosen: number[];
  choose?: (line: number) => void;
}) {
  const [kind, setKind] = useState("");
  const address = useAddress(file);
  const shown = plan.changes.filter((change) => (kind === "" ? change.change !== "known" : change.change === kind));
  return (
    <section className="sheet" aria-labelledby="plan">
      <h2 id="plan" className="sheet-title">
        Plan for {name}
      </h2>
      <Counts plan={plan} />
      {plan.notes?.map((note) => (
        <p key={note} className="border-l-4 border-warning bg-base-200 mx-4 mb-3 px-4 py-2">
          {note}
        </p>
      ))}
      <div className="px-4 pb-3 flex flex-wrap gap-3 items-end">
        <label className="grid gap-1">
          <span className="text-sm">Show</span>
          <select className="select select-sm" value={kind} onChange={(event) => setKind(event.target.value)}>
            <option value="">all changes</option>
            {Object.entries(WORDS).map(([word, says]) => (
              <option key={word} value={word}>
                {says}
              </option>
            ))}
          </select>
        </label>
        <a className="btn btn-sm" href={address} download={`${name.replace(/[.][^.]*$/, "")}-plan.json`}>
          Download the plan
        </a>
      </div>
      {shown.length === 0 ? (
        <p className="quiet px-4 pb-4">No row is changed.</p>
      ) : (
        <div className="overflow-x-auto">
          <table className="table table-sm">
            <thead>
              <tr>
                <th className="text-right">Line</th>
                <th>Old</th>
                <th>New</th>
                <th>Change</th>
                <th />
              </tr>
            </thead>
            <tbody>
              {shown.slice(0, MOST).map((change) => (
                <Row key={change.line} change={change} choose={chosen.includes(change.line) ? undefined : choose} />
              ))}
            </tbody>
          </table>
        </div>
      )}
      {shown.length > MOST && (
        <p className="quiet p-4">{count(shown.length - MOST)} more rows are in the plan. Download it to see them.</p>
      )}
    </section>
  );
}

function Counts({ plan }: { plan: TablePlan }) {
  const counts: [number, string][] = [
    [plan.kept, "right, recorded as pre-existing"],
    [plan.correct, "corrected"],
    [plan.known, "in the ledger already"],
    [plan.allocate, "blank, get a number"],
    [plan.renumber, "duplicate, get another number"],
    [plan.leave, "left alone"],
  ];
  return (
    <dl className="px-4 py-3 grid grid-cols-2 sm:grid-cols-3 lg:grid-cols-6 gap-x-6 gap-y-3">
      {counts.map(([number, says]) => (
        <div key={says}>
          <dd className="text-xl font-semibold tabular-nums">{count(number)}</dd>
          <dt className="quiet text-sm">{says}</dt>
        </div>
      ))}
      {plan["open-gaps"] > 0 && (
        <p className="col-span-full">
          {count(plan["open-gaps"])} {plan["open-gaps"] === 1 ? "gap" : "gaps"} below the highest number:{" "}
          {plan.gaps === "keep"
            ? "kept, and allocated from now on, the lowest first."
            : "closed, and void from then on."}
        </p>
      )}
    </dl>
  );
}

function Row({ change, choose }: { change: PlanChange; choose?: (line: number) => void }) {
  const keeper = change["same-as-line"];
  return (
    <tr>
      <td className="text-right tabular-nums">{change.line}</td>
      <td className="identifier">{change.was || <span className="quiet">blank</span>}</td>
      <td className="identifier">
        {change.to ?? change.expected ?? ""}
        {change.expected && <span className="quiet font-sans"> expected</span>}
      </td>
      <td>
        {WORDS[change.change]}
        {change.why && <span className="quiet">: {WHY[change.why] ?? change.why}</span>}
        {keeper && <span className="quiet">: line {keeper} keeps the old one</span>}
      </td>
      <td>
        {keeper && choose && (
          <button type="button" className="btn btn-xs" onClick={() => choose(change.line)}>
            Keep it here <span className="sr-only">in line {change.line}</span>
          </button>
        )}
      </td>
    </tr>
  );
}

/** An address of a file in memory, given back when it is not shown any more. */
export function useAddress(file: Blob | undefined): string | undefined {
  const address = useMemo(() => file && URL.createObjectURL(file), [file]);
  useEffect(
    () => () => {
      if (address) URL.revokeObjectURL(address);
    },
    [address],
  );
  return address;
}
