import { useState } from "react";
import type { SeriesView, Settlement } from "../../api/client.ts";
import { useAct } from "../../api/useAct.ts";
import { Settled } from "../../parts/Settled.tsx";
import { Trouble } from "../../parts/States.tsx";

const deeds = [
  { path: "confirmations", name: "confirm what is held" },
  { path: "releases", name: "release what is held" },
  { path: "returns", name: "give back unused" },
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
        What became of numbers
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
            Numbers <span className="quiet">(with commas between)</span>
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
            All through to <span className="quiet">(a row; else leave empty)</span>
          </span>
          <input
            className="input w-full identifier"
            value={last}
            onChange={(event) => setLast(event.target.value)}
            autoComplete="off"
          />
        </label>
        <label className="grid gap-1">
          <span className="text-sm">Reason {path !== "voids" && <span className="quiet">(if there is one)</span>}</span>
          <input
            className="input w-full"
            required={path === "voids"}
            value={reason}
            onChange={(event) => setReason(event.target.value)}
            autoComplete="off"
          />
        </label>
        <button type="submit" className="btn" aria-busy={act.isPending}>
          Write it into the ledger
        </button>
        <div aria-live="polite">
          {act.isError && <Trouble error={act.error} />}
          {act.isSuccess && <Settled settlement={act.data} />}
        </div>
      </div>
    </form>
  );
}
