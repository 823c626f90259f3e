import type { UseMutationResult } from "@tanstack/react-query";
import { useState } from "react";
import type { TablePlan } from "../../api/client.ts";
import { Trouble } from "../../parts/States.tsx";
import { count } from "../../parts/words.ts";
import { useAddress } from "./PlanView.tsx";

/** Carries out a plan, and hands back the repaired table. */
export function CarryOut({
  plan,
  name,
  repair,
}: {
  plan: TablePlan;
  name: string;
  repair: UseMutationResult<{ file: Blob; plan: number }, Error, { reason: string; oldColumn: string }>;
}) {
  const [reason, setReason] = useState("");
  const [oldColumn, setOldColumn] = useState("");
  const address = useAddress(repair.data?.file);
  const closes = plan.gaps === "close";
  return (
    <form
      className="sheet"
      aria-labelledby="carry-out"
      onSubmit={(event) => {
        event.preventDefault();
        if (!repair.isPending) repair.mutate({ reason: reason.trim(), oldColumn: oldColumn.trim() });
      }}
    >
      <h2 id="carry-out" className="sheet-title">
        Carry out
      </h2>
      <div className="p-4 grid gap-4">
        <fieldset disabled={repair.isPending || repair.isSuccess} className="grid gap-3 sm:grid-cols-2">
          <label className="grid gap-1">
            <span className="text-sm">Reason {!closes && <span className="quiet">(optional)</span>}</span>
            <input
              className="input w-full"
              required={closes}
              value={reason}
              onChange={(event) => setReason(event.target.value)}
            />
          </label>
          <label className="grid gap-1">
            <span className="text-sm">
              Further column for the old numbers <span className="quiet">(optional)</span>
            </span>
            <input className="input w-full" value={oldColumn} onChange={(event) => setOldColumn(event.target.value)} />
          </label>
        </fieldset>
        {!repair.isSuccess && (
          <button type="submit" className="btn btn-primary justify-self-start" aria-busy={repair.isPending}>
            Carry out
          </button>
        )}
      </div>
      <div aria-live="polite" className="px-4 pb-4 empty:hidden">
        {repair.isPending && <progress className="progress progress-primary w-full" aria-label="Carrying out" />}
        {repair.isError && <Trouble error={repair.error} />}
        {repair.isSuccess && (
          <div className="border-l-4 border-success bg-base-200 px-4 py-3">
            <p>
              Carried out, entry {repair.data.plan}: {count(plan["pre-existing"])} recorded,{" "}
              {count(plan.allocate + plan.renumber)} allocated, {count(plan.correct)} corrected.
            </p>
            <a
              className="btn btn-sm btn-primary mt-2"
              href={address}
              download={name.replace(/([.][^.]*)?$/, "-repaired$1")}
            >
              Download the repaired table
            </a>
          </div>
        )}
      </div>
    </form>
  );
}
