import { useState } from "react";
import type { NumberedDocument, Settlement } from "../../api/client.ts";
import { useAct } from "../../api/useAct.ts";
import { Trouble } from "../../parts/States.tsx";
import { count } from "../../parts/words.ts";
import { named } from "./files.ts";

/** The numbered files, and what becomes of their numbers where they are not wanted after all. */
export function NumberedPanel({ done }: { done: NumberedDocument }) {
  const [reason, setReason] = useState("");
  const [past, setPast] = useState("");
  const [left, setLeft] = useState(done.allocations);
  const settle = useAct<Settlement>();
  const numbers = done.allocations.flatMap((each) => each.identifiers);
  const settled = left.length < done.allocations.length && left.length === 0;
  /** Each series has its own entry: what is settled is not asked for again where a later one fails. */
  const undo = async (path: "voids" | "returns", how: string) => {
    for (const each of left) {
      await settle.mutateAsync({
        path: `/series/${encodeURIComponent(each.series)}/${path}`,
        body: { identifiers: each.identifiers, ...(reason ? { reason } : {}) },
      });
      setLeft((before) => before.filter((other) => other !== each));
    }
    setPast(how);
  };
  /** What fails is told by the mutation. */
  const begin = (path: "voids" | "returns", how: string) => void undo(path, how).catch(() => undefined);
  return (
    <section className="sheet" aria-labelledby="numbered">
      <h2 id="numbered" className="sheet-title">
        Numbered
      </h2>
      <div className="p-4 grid gap-3">
        <p>
          {count(done.changes.length)} changed, {count(done.unchanged)} unchanged
          {done.filled > 0 ? `, ${count(done.filled)} values in their places` : ""}
          {done.allocations.map((each) => `, entry ${each.entry}`).join("")}. Your own files are as they were.
        </p>
        <ul className="grid gap-1">
          {done.files.map((file) => (
            <li key={file.name}>
              <a
                className="link"
                href={`data:application/octet-stream;base64,${file.content ?? ""}`}
                download={file.numberedName ?? named(file.name, "-numbered")}
              >
                Download {file.numberedName ?? named(file.name, "-numbered")}
              </a>
            </li>
          ))}
        </ul>
        {left.length > 0 && (
          <div className="grid gap-2 border-t border-base-300 pt-3">
            <p>
              Undo: {count(numbers.length)} numbers were allocated, {numbers[0]} to {numbers[numbers.length - 1]}. Void
              them if a sheet may have been printed.
            </p>
            <label className="grid gap-1">
              <span className="text-sm">Reason</span>
              <input
                className="input w-full max-w-xl"
                value={reason}
                onChange={(event) => setReason(event.target.value)}
              />
            </label>
            <div className="flex gap-2 flex-wrap">
              <button
                type="button"
                className="btn"
                disabled={!reason.trim() || settle.isPending}
                onClick={() => begin("voids", "voided")}
              >
                Void the numbers
              </button>
              <button
                type="button"
                className="btn"
                disabled={settle.isPending}
                onClick={() => begin("returns", "returned")}
              >
                Return the numbers
              </button>
            </div>
            {settle.isError && <Trouble error={settle.error} />}
          </div>
        )}
        {settled && (
          <p role="status">
            {count(numbers.length)} numbers {past}. Do not use the numbered files.
          </p>
        )}
      </div>
    </section>
  );
}
