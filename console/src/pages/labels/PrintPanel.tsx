import { useState } from "react";
import { useNavigate } from "react-router";
import type { LabelJob, LabelPreview, LabelRequest } from "../../api/client.ts";
import { useAct } from "../../api/useAct.ts";
import { Trouble } from "../../parts/States.tsx";
import { count } from "../../parts/words.ts";
import { PrinterChoice } from "./PrinterChoice.tsx";

/** Prints what is previewed: from here on the numbers are allocated. */
export function PrintPanel({ request, preview }: { request: LabelRequest; preview: LabelPreview }) {
  const navigate = useNavigate();
  const print = useAct<LabelJob>((job) => void navigate(`/labels/jobs/${job.summary.job}`));
  const [printer, setPrinter] = useState("");
  const labels = preview.labels * preview.copies;
  return (
    <section className="sheet" aria-labelledby="print">
      <h2 id="print" className="sheet-title">
        Print
      </h2>
      <form
        className="p-4 grid gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (!print.isPending)
            print.mutate({ path: "/label-jobs", body: printer ? { ...request, printer } : request });
        }}
      >
        <p className="text-sm quiet">
          The numbers are allocated and the labels kept as a job.{" "}
          {printer ? "They are printed at once." : "They wait there until you send them."}
        </p>
        <PrinterChoice none="none: they wait" value={printer} set={setPrinter} />
        <button
          type="submit"
          className="btn btn-primary justify-self-start"
          aria-busy={print.isPending}
          disabled={preview.faults.length > 0}
        >
          Print {count(labels)} {labels === 1 ? "label" : "labels"}
        </button>
        <div aria-live="polite" className="empty:hidden">
          {print.isError && <Trouble error={print.error} />}
        </div>
      </form>
    </section>
  );
}
