import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { get, type IdentifierView, type Scan } from "../../api/client.ts";
import { Trouble } from "../../parts/States.tsx";
import { count } from "../../parts/words.ts";

/** Tells what is on a label that is scanned or typed; a scanner ends with Enter. */
export function ScanField() {
  const [text, setText] = useState("");
  const scan = useMutation({
    mutationFn: (entered: string) => get<Scan>(`/scans?${new URLSearchParams({ text: entered })}`),
  });
  return (
    <section className="sheet" aria-labelledby="scan">
      <h2 id="scan" className="sheet-title">
        What is on a label
      </h2>
      <form
        className="p-4 flex gap-3 flex-wrap items-end"
        aria-label="Scan"
        onSubmit={(event) => {
          event.preventDefault();
          scan.mutate(text);
          setText("");
        }}
      >
        <label className="grid gap-1 grow min-w-48">
          <span className="text-sm">Scanned or typed text</span>
          <input
            className="input w-full font-mono"
            required
            value={text}
            autoComplete="off"
            spellCheck={false}
            onChange={(event) => setText(event.target.value)}
          />
        </label>
        <button type="submit" className="btn" aria-busy={scan.isPending}>
          Look up
        </button>
      </form>
      <div aria-live="polite" className="px-4 pb-4 empty:hidden">
        {scan.isError && <Trouble error={scan.error} />}
        {scan.data && <Found scan={scan.data} />}
      </div>
    </section>
  );
}

function Found({ scan }: { scan: Scan }) {
  const right = scan.faults.length === 0 && scan.identifiers.length > 0;
  return (
    <div
      className={`border-l-4 bg-base-200 px-4 py-3 grid gap-3 ${right ? "border-success" : "border-error"}`}
      data-testid="scan"
    >
      {scan.elements.length > 0 && (
        <dl className="grid grid-cols-[auto_minmax(0,1fr)] gap-x-4">
          {scan.elements.map((element) => (
            <div key={element.code} className="contents">
              <dt className="quiet text-sm">
                ({element.code}) {element.title}
              </dt>
              <dd className="identifier break-all">{element.value}</dd>
            </div>
          ))}
        </dl>
      )}
      {scan.faults.map((fault) => (
        <p key={fault.path + fault.problem} className="text-sm">
          <strong className="text-error">Wrong:</strong> {fault.path} {fault.problem}; {fault.accepted}
        </p>
      ))}
      {scan.identifiers.map((issued) => (
        <Issued key={`${issued.namespace} ${issued.identifier}`} issued={issued} />
      ))}
      {scan.identifiers.length === 0 && (
        <p>
          <strong className="text-error">Never issued:</strong>{" "}
          <span className="identifier break-all">{scan.text}</span>
        </p>
      )}
      {scan.meant.map((meant) => (
        <div key={meant.identifier}>
          <p className="quiet text-sm">Perhaps meant ({meant.error}):</p>
          <Issued issued={meant.issued} />
        </div>
      ))}
    </div>
  );
}

function Issued({ issued }: { issued: IdentifierView }) {
  return (
    <div>
      <p>
        <span className="identifier font-semibold">{issued.identifier}</span>{" "}
        <span className="badge badge-sm badge-ghost whitespace-nowrap">{issued.state}</span>{" "}
        <Link className="link" to={`/series/${encodeURIComponent(issued.series)}`}>
          {issued.title}
        </Link>
        <span className="quiet text-sm">
          , {issued.date}, entry {issued.seq}
          {issued.reference ? `, for ${issued.reference}` : ""}
        </span>
      </p>
      {issued.labels && (
        <ul className="text-sm">
          {issued.labels.map((label) => (
            <li key={label.place}>
              Label {count(label.place)} of{" "}
              <Link className="link" to={`/labels/jobs/${label.job}`}>
                job {label.job}
              </Link>
              : {label.state}
              {label.reprint && ", a reprint"}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
