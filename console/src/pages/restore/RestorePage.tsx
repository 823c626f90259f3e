import { useState } from "react";
import type { HighestStatement, SeriesStatement, Settlement } from "../../api/client.ts";
import { useRollback } from "../../api/queries.ts";
import { useAct } from "../../api/useAct.ts";
import { Settled } from "../../parts/Settled.tsx";
import { Trouble, Waiting } from "../../parts/States.tsx";
import { count, span } from "../../parts/words.ts";

/** Numbers as they are typed: one a line, or with commas between them. */
const numbers = (text: string) => text.split(/[\n,;]/).flatMap((each) => each.trim() || []);

function StatementForm({ statement }: { statement: SeriesStatement }) {
  const [highest, setHighest] = useState("");
  const [unchanged, setUnchanged] = useState(false);
  const [reason, setReason] = useState("");
  const act = useAct<HighestStatement>();
  const id = `state-${statement.series}`;
  return (
    <form
      className="sheet"
      aria-labelledby={id}
      onSubmit={(event) => {
        event.preventDefault();
        act.mutate({
          path: "/rollback/statements",
          body: { series: statement.series, highest: numbers(highest), othersUnchanged: unchanged, reason },
        });
      }}
    >
      <h2 id={id} className="sheet-title">
        {statement.series} <span className="font-normal">{statement.stated ? "— stated" : "— not stated yet"}</span>
      </h2>
      <div className="p-4 grid gap-3">
        <ul className="text-sm">
          {statement.lanes.map((lane) => (
            <li key={`${lane.range} ${lane.lane}`}>
              {lane.lane || `range ${lane.range}`}: {lane.last ? "last known " : "nothing known"}
              {lane.last && <span className="identifier">{lane.last}</span>}, {count(lane.left)} left
            </li>
          ))}
          {statement.lanes.length === 0 && <li>No number of it is known.</li>}
        </ul>
        <label className="grid gap-1">
          <span className="text-sm">Highest number of each lane that is in use, one a line</span>
          <textarea
            className="textarea w-full identifier"
            rows={Math.max(2, statement.lanes.length)}
            value={highest}
            onChange={(event) => setHighest(event.target.value)}
          />
        </label>
        <label className="flex items-center gap-2 text-sm">
          <input
            type="checkbox"
            className="checkbox checkbox-sm"
            checked={unchanged}
            onChange={(event) => setUnchanged(event.target.checked)}
          />
          Nothing was issued in all other lanes
        </label>
        <label className="grid gap-1">
          <span className="text-sm">Where it is known from</span>
          <input
            className="input w-full"
            required
            autoComplete="off"
            value={reason}
            onChange={(event) => setReason(event.target.value)}
          />
        </label>
        <button type="submit" className="btn" aria-busy={act.isPending} disabled={act.isPending}>
          State it
        </button>
        <div aria-live="polite">
          {act.isError && <Trouble error={act.error} />}
          {act.isSuccess && (
            <p className="border-l-4 border-success bg-base-200 px-4 py-3 text-sm">
              {count(act.data.quantity)} in doubt
              {act.data.doubts[0] && (
                <>
                  : <span className="identifier">{span(act.data.doubts[0].first, act.data.doubts[0].last)}</span>
                </>
              )}
            </p>
          )}
        </div>
      </div>
    </form>
  );
}

function Resumption({ open }: { open: number }) {
  const [reason, setReason] = useState("");
  const act = useAct<Settlement>();
  return (
    <form
      className="sheet"
      aria-labelledby="resume"
      onSubmit={(event) => {
        event.preventDefault();
        act.mutate({ path: "/rollback/resumptions", body: { reason } });
      }}
    >
      <h2 id="resume" className="sheet-title">
        Allocate numbers again
      </h2>
      <div className="p-4 grid gap-3">
        <p className="text-sm">
          {open === 0 ? "Something is stated of every series." : `${count(open)} series are not stated yet.`}
        </p>
        <label className="grid gap-1">
          <span className="text-sm">Reason</span>
          <input
            className="input w-full"
            required
            autoComplete="off"
            value={reason}
            onChange={(event) => setReason(event.target.value)}
          />
        </label>
        <button
          type="submit"
          className="btn btn-primary"
          aria-busy={act.isPending}
          disabled={act.isPending || open > 0}
        >
          Allocate numbers again
        </button>
        <div aria-live="polite">
          {act.isError && <Trouble error={act.error} />}
          {act.isSuccess && <Settled settlement={act.data} />}
        </div>
      </div>
    </form>
  );
}

/** What an administrator states of a ledger that may not be the newest. */
export function RestorePage() {
  const rollback = useRollback();
  return (
    <>
      <h1 className="text-2xl font-semibold mb-5">Restored ledger</h1>
      {rollback.isPending && <Waiting />}
      {rollback.isError && <Trouble error={rollback.error} />}
      {rollback.data && !rollback.data.possible && (
        <p>The ledger is the newest, as far as is known. Numbers are allocated.</p>
      )}
      {rollback.data?.possible && (
        <div className="sheets">
          <p>
            State how far the numbers of each series may have been issued. What lies between is in doubt: it is never
            issued again, and is listed under Held and void until somebody settles it.
          </p>
          <div className="sheets lg:grid-cols-2 items-start">
            {rollback.data.series.map((each) => (
              <StatementForm key={each.series} statement={each} />
            ))}
          </div>
          <Resumption open={rollback.data.series.filter((each) => !each.stated).length} />
        </div>
      )}
    </>
  );
}
