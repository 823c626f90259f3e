import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useMemo, useRef, useState } from "react";
import { post, Problem, sendLabels } from "../../api/client.ts";
import { usePrinters } from "../../api/queries.ts";
import { Trouble } from "../../parts/States.tsx";
import { count } from "../../parts/words.ts";
import { PrinterChoice } from "./PrinterChoice.tsx";

/**
 * Sends what waits to a printer, or hands it out as a PDF. Pressing again after an outcome that is not known hands out
 * the same labels.
 */
export function SendPanel({
  job,
  waiting,
  printer: first,
}: {
  job: number;
  waiting: number;
  /** The printer of the job; empty for none. */
  printer: string;
}) {
  const [chosen, setPrinter] = useState(first);
  const printers = usePrinters();
  // The printer of the job may be none of those that there are now.
  const printer = printers.data?.some((each) => each.address === chosen) ? chosen : "";
  const queries = useQueryClient();
  const key = useRef<string>(undefined);
  const send = useMutation({
    mutationFn: () => sendLabels(job, (key.current ??= crypto.randomUUID())),
    onSuccess: () => {
      key.current = undefined;
    },
    onError: (error) => {
      if (!(error instanceof Problem) || (error.status !== 0 && error.status < 500)) key.current = undefined;
    },
    onSettled: () => void queries.invalidateQueries(),
  });
  const print = useMutation({
    mutationFn: () => post(`/label-jobs/${job}/printing`, { printer }),
    onSettled: () => void queries.invalidateQueries(),
  });
  if (waiting === 0 && send.isIdle) return null;
  return (
    <section className="sheet" aria-labelledby="send">
      <h2 id="send" className="sheet-title">
        Send
      </h2>
      <div className="p-4 grid gap-3">
        {waiting > 0 && (
          <>
            <p className="text-sm quiet">
              {count(waiting)} {waiting === 1 ? "label waits" : "labels wait"}. They are sent only once, as PDF up to
              20,000 at a time; what goes wrong afterwards is reprinted or spoiled below.
            </p>
            <PrinterChoice none="none: save a PDF file" value={printer} set={setPrinter} />
            <button
              type="button"
              className="btn btn-primary justify-self-start"
              aria-busy={send.isPending || print.isPending}
              onClick={() => {
                if (send.isPending || print.isPending) return;
                if (printer) print.mutate();
                else send.mutate();
              }}
            >
              {printer ? "Send to the printer" : "Send as PDF"}
            </button>
          </>
        )}
        <div aria-live="polite" className="empty:hidden grid gap-3">
          {send.isPending && <progress className="progress progress-primary w-full" aria-label="Drawing" />}
          {send.isError && <Trouble error={send.error} />}
          {print.isError && <Trouble error={print.error} />}
          {send.data && <Saved file={send.data} name={`labels-${job}.pdf`} />}
        </div>
      </div>
    </section>
  );
}

function Saved({ file, name }: { file: Blob; name: string }) {
  const address = useMemo(() => URL.createObjectURL(file), [file]);
  return (
    <p>
      Sent.{" "}
      <a className="link" href={address} download={name}>
        Save {name}
      </a>
    </p>
  );
}
