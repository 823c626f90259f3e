import { useState } from "react";
import type { SeriesView, Settlement } from "../../api/client.ts";
import { useAct } from "../../api/useAct.ts";
import { Settled } from "../../parts/Settled.tsx";
import { Trouble } from "../../parts/States.tsx";

const deeds = [
  { path: "confirmations", name: "confirm held numbers" },
  { path: "releases", name: "release held numbers" },
  { path: "returns", name: "return unused numbers" },
  { path: "voids", name: "void, with a reason" },
  { path: "uses", name: "report as used (of a block)" },
];

/** Says what became of numbers that were given. */
export function SettlePanel({ series }: { series: SeriesView }) {
  const [path, setPath] = useState("confirmations");
  const [texts, setTexts] = useState("");
  const [last, setLast] = useState("");
  const [reason, setReason] = useState("");
  const act = useAct<Settlement>(() => {
    setTexts("");
    setLast("");
    setReason("");
  });
  const submit = (event: React.FormEvent) => {
    event.preventDefault();
    const identifiers = texts
      .split(/[\n,;]+/)
      .map((each) => each.trim())
      .filter(Boolean);
    const selection = last.trim() ? { first: identifiers[0], last: last.trim() } : { identifiers };
    act.mutate({
      path: `/series/${encodeURIComponent(series.key)}/${path}`,
      body: { ...selection, ...(reason.trim() ? { reason: reason.trim() } : {}) },
    });
  };
  return (
    <form className="sheet" aria-labelledby="became" onSubmit={submit}>
      <h2 id="became" className="sheet-title">
        Change the state of numbers
      </h2>
      <div className="p-4 grid gap-3">
        <label className="grid gap-1">
          <span className="text-sm">Act</span>
          <select className="select w-full" value={path} onChange={(event) => setPath(event.target.value)}>
            {deeds.map((deed) => (
              <option key={deed.path} value={deed.path}>
                {deed.name}
              </option>
            ))}
          </select>
        </label>
        <label className="grid gap-1">
          <span className="text-sm">
            Numbers <span className="quiet">(separated by commas)</span>
          </span>
          <input
            className="input w-full identifier"
            required
            value={texts}
            onChange={(event) => setTexts(event.target.value)}
            placeholder={series.newest?.identifier}
            autoComplete="off"
          />
        </label>
        <label className="grid gap-1">
          <span className="text-sm">
            Through <span className="quiet">(last of a run, optional)</span>
          </span>
          <input
            className="input w-full identifier"
            value={last}
            onChange={(event) => setLast(event.target.value)}
            autoComplete="off"
          />
        </label>
        <label className="grid gap-1">
          <span className="text-sm">Reason {path !== "voids" && <span className="quiet">(optional)</span>}</span>
          <input
            className="input w-full"
            required={path === "voids"}
            value={reason}
            onChange={(event) => setReason(event.target.value)}
            autoComplete="off"
          />
        </label>
        <button type="submit" className="btn" aria-busy={act.isPending}>
          Record in the ledger
        </button>
        <div aria-live="polite">
          {act.isError && <Trouble error={act.error} />}
          {act.isSuccess && <Settled settlement={act.data} />}
        </div>
      </div>
    </form>
  );
}
