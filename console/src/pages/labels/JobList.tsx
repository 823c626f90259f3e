import { Link } from "react-router";
import { useLabelJobs } from "../../api/queries.ts";
import { Scroller } from "../../parts/Scroller.tsx";
import { Nothing, Trouble, Waiting } from "../../parts/States.tsx";
import { count, span, when } from "../../parts/words.ts";
import { states } from "./states.ts";

/** The newest jobs of labels. */
export function JobList() {
  const jobs = useLabelJobs();
  return (
    <section className="sheet" aria-labelledby="jobs">
      <h2 id="jobs" className="sheet-title">
        Jobs
      </h2>
      {jobs.isPending && <Waiting />}
      {jobs.isLoadingError && <Trouble error={jobs.error} />}
      {jobs.data?.length === 0 && <Nothing>Nothing was printed yet.</Nothing>}
      {jobs.data && jobs.data.length > 0 && (
        <Scroller label="Jobs">
          <table className="table table-sm">
            <thead>
              <tr>
                <th className="text-right">Job</th>
                <th>Layout</th>
                <th>Identifiers</th>
                <th>Labels</th>
                <th>By</th>
                <th>When</th>
              </tr>
            </thead>
            <tbody>
              {jobs.data.map((job) => (
                <tr key={job.job}>
                  <td className="text-right tabular-nums">
                    <Link className="link" to={`/labels/jobs/${job.job}`}>
                      {job.job}
                    </Link>
                  </td>
                  <td>{job.layout}</td>
                  <td className="identifier whitespace-nowrap">{span(job.first, job.last)}</td>
                  <td>
                    {states(job)
                      .map(([state, quantity]) => `${count(quantity)} ${state}`)
                      .join(", ")}
                  </td>
                  <td>{job.by}</td>
                  <td className="whitespace-nowrap">{when(job.at)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </Scroller>
      )}
    </section>
  );
}
