import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useMemo, useRef } from "react";
import { Problem, sendLabels } from "../../api/client.ts";
import { Trouble } from "../../parts/States.tsx";
import { count } from "../../parts/words.ts";

/** Hands out what waits as a PDF. Pressing again after an outcome that is not known hands out the same labels. */
export function SendPanel({ job, waiting }: { job: number; waiting: number }) {
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
              {count(waiting)} {waiting === 1 ? "label waits" : "labels wait"}. They are handed out only once, up to
              20,000 at a time; what goes wrong afterwards is reprinted or spoiled below.
            </p>
            <button
              type="button"
              className="btn btn-primary justify-self-start"
              aria-busy={send.isPending}
              onClick={() => {
                if (!send.isPending) send.mutate();
              }}
            >
              Send as PDF
            </button>
          </>
        )}
        <div aria-live="polite" className="empty:hidden grid gap-3">
          {send.isPending && <progress className="progress progress-primary w-full" aria-label="Drawing" />}
          {send.isError && <Trouble error={send.error} />}
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
