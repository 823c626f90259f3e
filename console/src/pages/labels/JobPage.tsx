import { Link, useParams } from "react-router";
import type { LabelJob } from "../../api/client.ts";
import { useLabelJob } from "../../api/queries.ts";
import { Scroller } from "../../parts/Scroller.tsx";
import { useSession } from "../../parts/Session.tsx";
import { Trouble, Waiting } from "../../parts/States.tsx";
import { count, span, when } from "../../parts/words.ts";
import { ChangePanel } from "./ChangePanel.tsx";
import { PrinterPanel } from "./PrinterPanel.tsx";
import { SendPanel } from "./SendPanel.tsx";
import { colour, states } from "./states.ts";

/** One job of labels: which labels are in which state, what was done with them, and what can be done. */
export function JobPage() {
  const { job = "" } = useParams();
  const { may } = useSession();
  const query = useLabelJob(job);
  if (query.isPending) return <Waiting />;
  if (query.isLoadingError) return <Trouble error={query.error} />;
  const view = query.data;
  return (
    <div className="sheets">
      <h1 className="text-2xl font-semibold">Label job {view.summary.job}</h1>
      <Summary view={view} />
      {view.printing && <PrinterPanel job={view.summary.job} size={view.size} view={view} printing={view.printing} />}
      {may("allocate") && !isUnderWay(view) && (
        <SendPanel job={view.summary.job} waiting={view.summary.states.waiting ?? 0} printer={view.printer ?? ""} />
      )}
      <Stretches view={view} />
      {(may("allocate") || may("void")) && <ChangePanel job={view.summary.job} size={view.size} />}
      <Changes view={view} />
    </div>
  );
}

/** Whether a printer is still at it. */
const isUnderWay = (view: LabelJob) => view.printing !== undefined && view.printing.state !== "failed";

function Summary({ view }: { view: LabelJob }) {
  const { summary } = view;
  return (
    <section className="sheet" aria-labelledby="summary">
      <h2 id="summary" className="sheet-title">
        Summary
      </h2>
      <dl className="p-4 grid grid-cols-[auto_minmax(0,1fr)] gap-x-4 gap-y-1">
        <Item name="Labels">
          {count(summary.labels)}
          {summary.copies > 1 && `, ${summary.copies} copies of each`}
        </Item>
        <Item name="Identifiers">
          <span className="identifier">{span(summary.first, summary.last)}</span>
        </Item>
        <Item name="Layout">{summary.layout}</Item>
        <Item name="Series">
          <Link className="link" to={`/series/${encodeURIComponent(summary.series)}`}>
            {summary.series}
          </Link>
          {summary.unit && `, for ${summary.unit}`}
        </Item>
        {Object.entries(view.fields)
          .filter(([name]) => name !== "unit")
          .map(([name, value]) => (
            <Item key={name} name={name}>
              {value}
            </Item>
          ))}
        <Item name="Begun">
          {when(summary.at)} by {summary.by}
        </Item>
        <Item name="States">
          <span className="flex flex-wrap gap-2">
            {states(summary).map(([state, quantity]) => (
              <span key={state} className={`badge ${colour[state] ?? ""}`}>
                {count(quantity)} {state}
              </span>
            ))}
          </span>
        </Item>
      </dl>
      <p className="px-4 pb-4 text-sm">
        <a className="link" href={`/api/v1/label-jobs/${summary.job}/data`} download={`labels-${summary.job}.csv`}>
          Save the data of every label as CSV
        </a>
      </p>
    </section>
  );
}

function Item({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <>
      <dt className="quiet text-sm">{name}</dt>
      <dd>{children}</dd>
    </>
  );
}

const places = (from: number, to: number) => (from === to ? count(from) : `${count(from)} to ${count(to)}`);

function Stretches({ view }: { view: LabelJob }) {
  return (
    <section className="sheet" aria-labelledby="labels">
      <h2 id="labels" className="sheet-title">
        Labels
      </h2>
      <Scroller label="Labels">
        <table className="table table-sm">
          <thead>
            <tr>
              <th>Places</th>
              <th>State</th>
              <th>Identifiers</th>
            </tr>
          </thead>
          <tbody>
            {view.stretches.map((stretch) => (
              <tr key={stretch.from}>
                <td className="whitespace-nowrap tabular-nums">{places(stretch.from, stretch.to)}</td>
                <td className="whitespace-nowrap">
                  <span className={`badge badge-sm ${colour[stretch.state] ?? ""}`}>{stretch.state}</span>
                  {stretch.reprint && <span className="quiet text-sm ml-2">reprint</span>}
                </td>
                <td className="identifier whitespace-nowrap">{span(stretch.first, stretch.last)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </Scroller>
      {view.more && <p className="quiet text-sm px-4 py-2">There are more. The CSV file has them all.</p>}
    </section>
  );
}

function Changes({ view }: { view: LabelJob }) {
  if (view.changes.length === 0) return null;
  return (
    <section className="sheet" aria-labelledby="changes">
      <h2 id="changes" className="sheet-title">
        What was done
      </h2>
      <Scroller label="What was done">
        <table className="table table-sm">
          <thead>
            <tr>
              <th className="text-right">Entry</th>
              <th>Places</th>
              <th>Became</th>
              <th>Note</th>
              <th>By</th>
              <th>When</th>
            </tr>
          </thead>
          <tbody>
            {view.changes.map((change) => (
              <tr key={`${change.seq} ${change.from}`}>
                <td className="text-right tabular-nums">{change.seq}</td>
                <td className="whitespace-nowrap tabular-nums">{places(change.from, change.to)}</td>
                <td>{change.state}</td>
                <td>{change.note ?? "—"}</td>
                <td>{change.by}</td>
                <td className="whitespace-nowrap">{when(change.at)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </Scroller>
    </section>
  );
}
