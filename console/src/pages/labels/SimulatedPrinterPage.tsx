import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { put, type SimulatedPrinter } from "../../api/client.ts";
import { useSimulatedPrinter } from "../../api/queries.ts";
import { Scroller } from "../../parts/Scroller.tsx";
import { useSession } from "../../parts/Session.tsx";
import { Nothing, Trouble, Waiting } from "../../parts/States.tsx";
import { count } from "../../parts/words.ts";

const troubles = [
  { word: "none", name: "None" },
  { word: "jam", name: "It jams" },
  { word: "slow", name: "It is slow: one page a second" },
  { word: "refuse", name: "It refuses jobs" },
  { word: "vanish", name: "It vanishes" },
  { word: "nonsense", name: "It answers nonsense" },
];
/** What begins only behind some pages. */
const later = ["jam", "vanish"];

/** The printer of the demo that is not there: what came out of it, and what goes wrong with it. */
export function SimulatedPrinterPage() {
  const query = useSimulatedPrinter();
  const { may } = useSession();
  if (query.isPending) return <Waiting />;
  if (query.isLoadingError) return <Trouble error={query.error} />;
  return (
    <div className="sheets">
      <h1 className="text-2xl font-semibold">Simulated printer</h1>
      <p className="quiet">
        It prints on no paper: its pages are kept as PDF. Its address is{" "}
        <span className="identifier">{query.data.address}</span>
      </p>
      {may("allocate") && <Faults now={query.data.trouble} />}
      <Jobs jobs={query.data.jobs} />
    </div>
  );
}

function Faults({ now }: { now: string }) {
  const queries = useQueryClient();
  const [trouble, setTrouble] = useState("none");
  const [behind, setBehind] = useState("12");
  const set = useMutation({
    mutationFn: (body: { trouble: string; behind: number }) => put("/simulated-printer", body),
    onSettled: () => void queries.invalidateQueries(),
  });
  return (
    <section className="sheet" aria-labelledby="fault">
      <h2 id="fault" className="sheet-title">
        Fault
      </h2>
      <form
        className="p-4 grid gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (!set.isPending) set.mutate({ trouble, behind: later.includes(trouble) ? Number(behind) : 0 });
        }}
      >
        <p aria-live="polite">
          Now: <strong>{troubles.find((each) => each.word === now)?.name}</strong>
        </p>
        <div className="grid gap-3 sm:grid-cols-2 max-w-2xl">
          <label className="grid gap-1">
            <span className="text-sm">From now on</span>
            <select
              className="select w-full truncate pr-10 appearance-none"
              value={trouble}
              onChange={(event) => setTrouble(event.target.value)}
            >
              {troubles.map((each) => (
                <option key={each.word} value={each.word}>
                  {each.name}
                </option>
              ))}
            </select>
          </label>
          {later.includes(trouble) && (
            <label className="grid gap-1">
              <span className="text-sm">Pages before</span>
              <input
                className="input w-full"
                type="number"
                min="0"
                max="1000000"
                required
                value={behind}
                onChange={(event) => setBehind(event.target.value)}
              />
            </label>
          )}
        </div>
        <button type="submit" className="btn justify-self-start" aria-busy={set.isPending}>
          Set
        </button>
        {set.isError && <Trouble error={set.error} />}
      </form>
    </section>
  );
}

function Jobs({ jobs }: { jobs: SimulatedPrinter["jobs"] }) {
  return (
    <section className="sheet" aria-labelledby="jobs">
      <h2 id="jobs" className="sheet-title">
        Jobs
      </h2>
      {jobs.length === 0 ? (
        <Nothing>Nothing was sent to it yet.</Nothing>
      ) : (
        <Scroller label="Jobs">
          <table className="table table-sm">
            <thead>
              <tr>
                <th className="text-right">Number</th>
                <th>Job</th>
                <th>State</th>
                <th className="text-right">Pages printed</th>
                <th>For</th>
                <th>Output</th>
              </tr>
            </thead>
            <tbody>
              {jobs.map((job) => (
                <tr key={job.number}>
                  <td className="text-right tabular-nums">{job.number}</td>
                  <td>{job.name}</td>
                  <td>{job.state}</td>
                  <td className="text-right tabular-nums whitespace-nowrap">
                    {count(job.printed)} of {count(job.pages)}
                  </td>
                  <td>{job.user}</td>
                  <td>
                    {job.printed > 0 && (
                      <a className="link" href={`/api/v1/simulated-printer/jobs/${job.number}`}>
                        PDF<span className="sr-only"> of job {job.number}</span>
                      </a>
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </Scroller>
      )}
    </section>
  );
}
