import { useMutation, useQueryClient } from "@tanstack/react-query";
import { remove, type LabelJob } from "../../api/client.ts";
import { useSession } from "../../parts/Session.tsx";
import { Trouble } from "../../parts/States.tsx";
import { count } from "../../parts/words.ts";

const told: Record<string, string> = {
  queued: "Other jobs are printed before.",
  printing: "Printing.",
  stopped: "It goes on when its fault is mended. Or stop printing, and settle the labels below.",
  failed:
    "Look at the labels that came out. Then confirm, reprint or spoil what is unconfirmed, and send what still waits.",
};

/** How it is with a job at its printer. */
export function PrinterPanel({
  job,
  size,
  view,
  printing,
}: {
  job: number;
  size: number;
  view: LabelJob;
  printing: NonNullable<LabelJob["printing"]>;
}) {
  const queries = useQueryClient();
  const { may } = useSession();
  const stop = useMutation({
    mutationFn: () => remove(`/label-jobs/${job}/printing`),
    onSettled: () => void queries.invalidateQueries(),
  });
  const failed = printing.state === "failed";
  const printed = view.summary.states.printed ?? 0;
  return (
    <section className="sheet" aria-labelledby="printer">
      <h2 id="printer" className="sheet-title">
        Printer
      </h2>
      <div className="p-4 grid gap-3">
        <div aria-live="polite" className="grid gap-3">
          {printing.problem ? (
            <p className={`border-l-4 px-4 py-2 bg-base-200 ${failed ? "border-error" : "border-warning"}`}>
              <strong>Printer {printing.printer}</strong> {printing.problem}.
            </p>
          ) : (
            <p>
              <span className="identifier">{printing.printer}</span>
            </p>
          )}
          <p className="text-sm quiet">{told[printing.state]}</p>
        </div>
        {!failed && (
          <>
            <progress
              className="progress progress-primary w-full"
              value={printed}
              max={size}
              aria-label={`${count(printed)} of ${count(size)} labels printed`}
            />
            {may("allocate") && (
              <button
                type="button"
                className="btn justify-self-start"
                aria-busy={stop.isPending}
                onClick={() => {
                  if (!stop.isPending) stop.mutate();
                }}
              >
                Stop printing
              </button>
            )}
          </>
        )}
        {stop.isError && <Trouble error={stop.error} />}
      </div>
    </section>
  );
}
