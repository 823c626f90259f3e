import { useState } from "react";
import { Link } from "react-router";
import type { DoubtView, Settlement } from "../../api/client.ts";
import { useDoubts } from "../../api/queries.ts";
import { useAct } from "../../api/useAct.ts";
import { Scroller } from "../../parts/Scroller.tsx";
import { Settled } from "../../parts/Settled.tsx";
import { Trouble } from "../../parts/States.tsx";
import { count, span, when } from "../../parts/words.ts";

/** Numbers that a lost state of the ledger may have issued, until each is settled; nothing where there are none. */
export function Doubts() {
  const doubts = useDoubts();
  const [reason, setReason] = useState("");
  const act = useAct<Settlement>();
  const settle = (doubt: DoubtView, path: string) =>
    act.mutate({
      path: `/series/${encodeURIComponent(doubt.series)}/${path}`,
      body: { first: doubt.first, last: doubt.last, ...(reason ? { reason } : {}) },
    });
  if (doubts.isError)
    return (
      <section className="sheet p-4" aria-label="In doubt">
        <Trouble error={doubts.error} />
      </section>
    );
  if (!doubts.data || (doubts.data.length === 0 && act.isIdle)) return null;
  return (
    <section className="sheet" aria-labelledby="doubts">
      <h2 id="doubts" className="sheet-title">
        In doubt
      </h2>
      <label className="grid gap-1 p-4 pb-0 max-w-md">
        <span className="text-sm">Reason</span>
        <input
          className="input w-full"
          autoComplete="off"
          value={reason}
          onChange={(event) => setReason(event.target.value)}
        />
      </label>
      <Scroller label="Numbers in doubt">
        <table className="table table-sm">
          <thead>
            <tr>
              <th>Numbers</th>
              <th>Series</th>
              <th className="text-right">Quantity</th>
              <th>Stated</th>
              <th>By</th>
              <th>
                <span className="sr-only">Act</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {doubts.data.map((doubt) => (
              <tr key={`${doubt.series} ${doubt.first}`}>
                <td className="identifier">{span(doubt.first, doubt.last)}</td>
                <td>
                  <Link className="link" to={`/series/${doubt.series}`}>
                    {doubt.series}
                  </Link>
                </td>
                <td className="text-right tabular-nums">{count(doubt.quantity)}</td>
                <td>
                  {when(doubt.at)}
                  {doubt.reason && `: ${doubt.reason}`}
                </td>
                <td>{doubt.by}</td>
                <td className="whitespace-nowrap text-right">
                  <button
                    type="button"
                    className="btn btn-xs"
                    disabled={act.isPending}
                    aria-label={`${doubt.first} was issued`}
                    onClick={() => settle(doubt, "uses")}
                  >
                    Issued
                  </button>{" "}
                  <button
                    type="button"
                    className="btn btn-xs"
                    disabled={act.isPending}
                    aria-label={`Void ${doubt.first}`}
                    onClick={() => settle(doubt, "voids")}
                  >
                    Void
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </Scroller>
      <div aria-live="polite" className={act.isIdle || act.isPending ? "" : "p-3"}>
        {act.isError && <Trouble error={act.error} />}
        {act.isSuccess && <Settled settlement={act.data} />}
      </div>
    </section>
  );
}
