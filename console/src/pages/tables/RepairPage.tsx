import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { planTable, repairTable } from "../../api/client.ts";
import { useSeriesList } from "../../api/queries.ts";
import { Trouble } from "../../parts/States.tsx";
import { CarryOut } from "./CarryOut.tsx";
import { PlanView } from "./PlanView.tsx";

/** Plans the repair of a table, shows it row by row, and carries it out. */
export function RepairPage() {
  const queries = useQueryClient();
  const series = useSeriesList();
  const [file, setFile] = useState<File>();
  const [choices, setChoices] = useState({ series: "", column: "", gaps: "keep", duplicates: "first", dateColumn: "" });
  const [chosen, setChosen] = useState<number[]>([]);
  const query = {
    column: choices.column.trim(),
    gaps: choices.gaps,
    duplicates: choices.duplicates,
    dateColumn: choices.dateColumn.trim(),
  };
  const plan = useMutation({
    mutationFn: ({ table, lines }: { table: File; lines: number[] }) => planTable(choices.series, table, query, lines),
  });
  const repair = useMutation({
    mutationFn: ({ reason, oldColumn }: { reason: string; oldColumn: string }) => {
      if (!file || !plan.data) throw new Error("There is no plan.");
      const named = { plan: plan.data.digest, standing: plan.data.plan.standing, reason, oldColumn };
      return repairTable(choices.series, file, { ...query, column: plan.data.plan.column, ...named }, chosen);
    },
    onSettled: () => void queries.invalidateQueries(),
  });
  /** Another plan than the one before. */
  const otherwise = (change: () => void) => {
    change();
    setChosen([]);
    plan.reset();
    repair.reset();
  };
  const make = (lines: number[]) => {
    setChosen(lines);
    repair.reset();
    if (file && !plan.isPending) plan.mutate({ table: file, lines });
  };
  const set = (name: keyof typeof choices) => (event: { target: { value: string } }) =>
    otherwise(() => setChoices({ ...choices, [name]: event.target.value }));
  return (
    <div className="sheets">
      <h1 className="text-2xl font-semibold">Repair a table</h1>
      <form
        className="sheet"
        aria-label="Repair a table"
        onSubmit={(event) => {
          event.preventDefault();
          make([]);
        }}
      >
        <div className="p-4 grid gap-4">
          <p className="quiet">
            Right numbers are kept and recorded as pre-existing: in use before they came here. Blank rows and duplicates
            get numbers, misspelled numbers are corrected where no doubt is left, the rest is left alone. The plan comes
            first; nothing is changed before you carry it out. To see what a table holds,{" "}
            <Link className="link" to="/tables">
              inspect it
            </Link>
            .
          </p>
          <fieldset disabled={plan.isPending || repair.isPending} className="grid gap-3 sm:grid-cols-3">
            <label className="grid gap-1">
              <span className="text-sm">Table</span>
              <input
                type="file"
                className="file-input w-full"
                required
                accept=".csv,.tsv,.txt,.xlsx,.jsonl,.ndjson"
                onChange={(event) => otherwise(() => setFile(event.target.files?.[0]))}
              />
            </label>
            <label className="grid gap-1">
              <span className="text-sm">Series of the numbers</span>
              <select className="select w-full" required value={choices.series} onChange={set("series")}>
                <option value="">choose</option>
                {(series.data ?? []).map((each) => (
                  <option key={each.key} value={each.key}>
                    {each.title}
                  </option>
                ))}
              </select>
            </label>
            <label className="grid gap-1">
              <span className="text-sm">
                Column <span className="quiet">(default: the likeliest)</span>
              </span>
              <input className="input w-full" value={choices.column} autoComplete="off" onChange={set("column")} />
            </label>
            <label className="grid gap-1">
              <span className="text-sm">Gaps</span>
              <select className="select w-full" value={choices.gaps} onChange={set("gaps")}>
                <option value="keep">keep: allocate them from now on</option>
                <option value="close">close: make them void</option>
              </select>
            </label>
            <label className="grid gap-1">
              <span className="text-sm">Of duplicates, keep</span>
              <select className="select w-full" value={choices.duplicates} onChange={set("duplicates")}>
                <option value="first">the first row</option>
                <option value="oldest">the oldest row</option>
              </select>
            </label>
            <label className="grid gap-1">
              <span className="text-sm">
                Column of dates {choices.duplicates === "first" && <span className="quiet">(optional)</span>}
              </span>
              <input
                className="input w-full"
                required={choices.duplicates === "oldest"}
                value={choices.dateColumn}
                autoComplete="off"
                onChange={set("dateColumn")}
              />
            </label>
          </fieldset>
          <button type="submit" className="btn btn-primary justify-self-start" aria-busy={plan.isPending}>
            Plan
          </button>
        </div>
        <div aria-live="polite" className="px-4 pb-4 empty:hidden">
          {plan.isPending && <progress className="progress progress-primary w-full" aria-label="Planning" />}
          {plan.isError && <Trouble error={plan.error} />}
        </div>
      </form>
      {plan.data && (
        <>
          <PlanView
            plan={plan.data.plan}
            file={plan.data.file}
            name={file?.name ?? ""}
            chosen={chosen}
            choose={repair.isIdle || repair.isError ? (line) => make([...chosen, line]) : undefined}
          />
          <CarryOut plan={plan.data.plan} name={file?.name ?? ""} repair={repair} />
        </>
      )}
    </div>
  );
}
