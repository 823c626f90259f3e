import { useState } from "react";
import { Link, useNavigate } from "react-router";
import type { Settlement } from "../../api/client.ts";
import { useClosings, useSeriesList } from "../../api/queries.ts";
import { useAct } from "../../api/useAct.ts";
import { Scroller } from "../../parts/Scroller.tsx";
import { Nothing, Trouble, Waiting } from "../../parts/States.tsx";
import { count } from "../../parts/words.ts";

function CloseForm() {
  const navigate = useNavigate();
  const series = useSeriesList();
  const [what, setWhat] = useState("");
  const [from, setFrom] = useState("");
  const [to, setTo] = useState("");
  const [note, setNote] = useState("");
  const close = useAct<Settlement>((settlement) => void navigate(`/closings/${settlement.seq}`));
  const submit = (event: React.FormEvent) => {
    event.preventDefault();
    const at = what.indexOf(" ");
    close.mutate({
      path: "/closings",
      body: { [what.slice(0, at)]: what.slice(at + 1), from, to, ...(note.trim() ? { note: note.trim() } : {}) },
    });
  };
  return (
    <form className="sheet" aria-labelledby="close" onSubmit={submit}>
      <h2 id="close" className="sheet-title">
        Close a period
      </h2>
      <div className="p-4 grid gap-3">
        <label className="grid gap-1">
          <span className="text-sm">Of</span>
          <select className="select w-full" required value={what} onChange={(event) => setWhat(event.target.value)}>
            <option value="">choose …</option>
            <optgroup label="All series of a namespace">
              {[...new Set(series.data?.map((each) => each.namespace))].map((each) => (
                <option key={each} value={`namespace ${each}`}>
                  {each}
                </option>
              ))}
            </optgroup>
            <optgroup label="One series">
              {series.data?.map((each) => (
                <option key={each.key} value={`series ${each.key}`}>
                  {each.title}
                </option>
              ))}
            </optgroup>
          </select>
        </label>
        <div className="grid grid-cols-2 gap-3">
          <label className="grid gap-1">
            <span className="text-sm">From</span>
            <input
              className="input w-full"
              type="date"
              required
              value={from}
              onChange={(event) => setFrom(event.target.value)}
            />
          </label>
          <label className="grid gap-1">
            <span className="text-sm">To, included</span>
            <input
              className="input w-full"
              type="date"
              required
              value={to}
              onChange={(event) => setTo(event.target.value)}
            />
          </label>
        </div>
        <label className="grid gap-1">
          <span className="text-sm">
            Note <span className="quiet">(optional)</span>
          </span>
          <input
            className="input w-full"
            value={note}
            onChange={(event) => setNote(event.target.value)}
            autoComplete="off"
          />
        </label>
        <button type="submit" className="btn btn-primary" aria-busy={close.isPending}>
          Close it
        </button>
        <p className="quiet text-sm">No number can then be dated inside. Returned numbers inside become void.</p>
        <div aria-live="polite">{close.isError && <Trouble error={close.error} />}</div>
      </div>
    </form>
  );
}

/** Every period that was closed. */
export function ClosingList() {
  const closings = useClosings();
  return (
    <>
      <h1 className="text-2xl font-semibold mb-5">Closed periods</h1>
      <div className="sheets lg:grid-cols-[minmax(0,1fr)_20rem] items-start">
        <section className="sheet min-w-0" aria-label="Closed periods">
          {closings.isPending && <Waiting />}
          {closings.isError && <Trouble error={closings.error} />}
          {closings.data?.length === 0 && <Nothing>No periods are closed.</Nothing>}
          {closings.data && closings.data.length > 0 && (
            <Scroller label="Closed periods">
              <table className="table table-sm">
                <thead>
                  <tr>
                    <th className="text-right">Closing</th>
                    <th>Of</th>
                    <th>From</th>
                    <th>To</th>
                    <th className="text-right">Issued</th>
                    <th className="text-right">Void</th>
                    <th>State</th>
                    <th>By</th>
                  </tr>
                </thead>
                <tbody>
                  {closings.data.map((each) => (
                    <tr key={each.closing}>
                      <td className="text-right">
                        <Link className="link tabular-nums" to={`/closings/${each.closing}`}>
                          {each.closing}
                        </Link>
                      </td>
                      <td>
                        {each.scope} {each.key}
                      </td>
                      <td className="whitespace-nowrap tabular-nums">{each.from}</td>
                      <td className="whitespace-nowrap tabular-nums">{each.to}</td>
                      <td className="text-right tabular-nums">{count(each.issued)}</td>
                      <td className="text-right tabular-nums">{count(each.voids)}</td>
                      <td>{each.reopened ? "reopened" : "closed"}</td>
                      <td>{each.by}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </Scroller>
          )}
        </section>
        <CloseForm />
      </div>
    </>
  );
}
