import { useState } from "react";
import { Link, useParams } from "react-router";
import type { Settlement } from "../../api/client.ts";
import { useClosing } from "../../api/queries.ts";
import { useAct } from "../../api/useAct.ts";
import { Scroller } from "../../parts/Scroller.tsx";
import { Settled } from "../../parts/Settled.tsx";
import { Nothing, Trouble, Waiting } from "../../parts/States.tsx";
import { count, span, when } from "../../parts/words.ts";

function Reopen({ closing }: { closing: number }) {
  const [reason, setReason] = useState("");
  const act = useAct<Settlement>(() => setReason(""));
  return (
    <form
      className="sheet"
      aria-labelledby="reopen"
      onSubmit={(event) => {
        event.preventDefault();
        act.mutate({ path: `/closings/${closing}/reopenings`, body: { reason } });
      }}
    >
      <h2 id="reopen" className="sheet-title">
        Reopen
      </h2>
      <div className="p-4 grid gap-3">
        <label className="grid gap-1">
          <span className="text-sm">Reason</span>
          <input
            className="input w-full"
            required
            value={reason}
            onChange={(event) => setReason(event.target.value)}
            autoComplete="off"
          />
        </label>
        <button type="submit" className="btn" aria-busy={act.isPending}>
          Open again
        </button>
        <div aria-live="polite">
          {act.isError && <Trouble error={act.error} />}
          {act.isSuccess && <Settled settlement={act.data} />}
        </div>
      </div>
    </form>
  );
}

/** The statement of a closed period. */
export function ClosingPage() {
  const { closing = "" } = useParams();
  const query = useClosing(closing);
  if (query.isPending) return <Waiting />;
  if (query.isLoadingError) return <Trouble error={query.error} />;
  const statement = query.data;
  return (
    <>
      <p className="text-sm mb-1">
        <Link className="link" to="/closings">
          Closed periods
        </Link>{" "}
        <span aria-hidden="true">/</span> {statement.closing}
      </p>
      <div className="flex flex-wrap items-center gap-3 mb-2">
        <h1 className="text-2xl font-semibold">
          {statement.scope} {statement.key}, {statement.from} to {statement.to}
        </h1>
        <a className="btn btn-sm ml-auto" href={`/api/v1/closings/${statement.closing}/page`}>
          Page for signatures (PDF)
        </a>
      </div>
      {statement.reopened && (
        <p role="status" className="border-l-4 border-warning bg-base-200 px-4 py-2 mb-4">
          <strong>Reopened</strong> {when(statement.reopened.at)}, by {statement.reopened.by}, entry{" "}
          {statement.reopened.seq}: {statement.reopened.reason}
        </p>
      )}
      <dl className="grid gap-1 mb-6 text-sm">
        {[
          ["Closed", `${when(statement.at)} by ${statement.by}, entry ${statement.closing}`],
          ...(statement.note ? [["Note", statement.note]] : []),
          ["Issued", count(statement.issued)],
          ["Head", statement.head],
        ].map(([name, value]) => (
          <div key={name} className="flex gap-2">
            <dt className="quiet w-16 shrink-0">{name}</dt>
            <dd className={name === "Head" ? "font-mono break-all" : ""}>{value}</dd>
          </div>
        ))}
      </dl>
      <div className="sheets lg:grid-cols-[minmax(0,1fr)_18rem] items-start">
        <div className="sheets">
          <section className="sheet min-w-0" aria-labelledby="given">
            <h2 id="given" className="sheet-title">
              Numbers issued
            </h2>
            {statement.lanes.length === 0 ? (
              <Nothing>No numbers are dated inside the period.</Nothing>
            ) : (
              <Scroller label="Numbers issued">
                <table className="table table-sm">
                  <thead>
                    <tr>
                      <th>Series</th>
                      <th>Lane</th>
                      <th>First</th>
                      <th>Last</th>
                      <th className="text-right">Issued</th>
                      <th className="text-right">Void</th>
                    </tr>
                  </thead>
                  <tbody>
                    {statement.lanes.map((lane) => (
                      <tr key={`${lane.series} ${lane.lane} ${lane.first}`}>
                        <td>
                          <Link className="link" to={`/series/${lane.series}`}>
                            {lane.series}
                          </Link>
                        </td>
                        <td>{lane.lane || "—"}</td>
                        <td className="identifier">{lane.first ?? "—"}</td>
                        <td className="identifier">{lane.last ?? "—"}</td>
                        <td className="text-right tabular-nums">{count(lane.issued)}</td>
                        <td className="text-right tabular-nums">{count(lane.voids)}</td>
                      </tr>
                    ))}
                  </tbody>
                </table>
              </Scroller>
            )}
          </section>
          <section className="sheet min-w-0" aria-labelledby="why">
            <h2 id="why" className="sheet-title">
              Void numbers, with reasons
            </h2>
            {statement.voids.length === 0 ? (
              <Nothing>Nothing.</Nothing>
            ) : (
              <Scroller label="Void numbers">
                <table className="table table-sm">
                  <thead>
                    <tr>
                      <th>Numbers</th>
                      <th>Kind</th>
                      <th>Reason</th>
                      <th>By</th>
                      <th className="text-right">Entry</th>
                    </tr>
                  </thead>
                  <tbody>
                    {statement.voids.map((each) => (
                      <tr key={`${each.seq} ${each.first}`}>
                        <td className="identifier">{span(each.first, each.last)}</td>
                        <td>{each.kind}</td>
                        <td>{each.reason ?? "—"}</td>
                        <td>{each.by}</td>
                        <td className="text-right tabular-nums">{each.seq}</td>
                      </tr>
                    ))}
                  </tbody>
                </table>
              </Scroller>
            )}
          </section>
        </div>
        {!statement.reopened && <Reopen closing={statement.closing} />}
      </div>
    </>
  );
}
