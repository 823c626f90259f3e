import { Link } from "react-router";
import type { SeriesView } from "../../api/client.ts";
import { useEntries, useSeriesList } from "../../api/queries.ts";
import { EntryTable } from "../../parts/EntryTable.tsx";
import { Nothing, Trouble, Waiting } from "../../parts/States.tsx";
import { ScanField } from "../labels/ScanField.tsx";
import { SeriesTable } from "../series/SeriesTable.tsx";

function RunsOut({ series }: { series: SeriesView[] }) {
  const soon = series.filter((each) => each.warnings.length > 0 || each.state !== "serving");
  return (
    <section className="sheet" aria-labelledby="soon">
      <h2 id="soon" className="sheet-title">
        Action needed
      </h2>
      {soon.length === 0 && <Nothing>None: no series is low, exhausted or closing soon.</Nothing>}
      <ul className="divide-y divide-base-300">
        {soon.map((each) => (
          <li key={each.key} className="px-4 py-3 flex justify-between gap-4 items-baseline">
            <Link className="link font-medium" to={`/series/${each.key}`}>
              {each.title}
            </Link>
            <span className="text-warning font-medium text-right">
              {each.state === "closed"
                ? "no active range today"
                : each.left === 0
                  ? "exhausted"
                  : each.warnings.join("; ")}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function JustTaken() {
  const entries = useEntries(undefined, 8);
  return (
    <section className="sheet" aria-labelledby="taken">
      <h2 id="taken" className="sheet-title">
        Newest entries
      </h2>
      {entries.isPending && <Waiting />}
      {entries.isError && <Trouble error={entries.error} />}
      {entries.data?.pages[0]?.entries.length === 0 && <Nothing>The ledger is empty.</Nothing>}
      {entries.data && entries.data.pages[0]!.entries.length > 0 && (
        <EntryTable entries={entries.data.pages[0]!.entries} withSeries />
      )}
    </section>
  );
}

const GLANCE = 8;

/** Those that want attention first, then those used last. */
const atAGlance = (series: SeriesView[]): SeriesView[] => {
  const urgent = (each: SeriesView) => (each.warnings.length > 0 || each.state !== "serving" ? 0 : 1);
  return [...series]
    .sort((a, b) => urgent(a) - urgent(b) || (b.newest?.at ?? "").localeCompare(a.newest?.at ?? ""))
    .slice(0, GLANCE);
};

export function Overview() {
  const series = useSeriesList();
  if (series.isPending) return <Waiting />;
  if (series.isLoadingError) return <Trouble error={series.error} />;
  return (
    <>
      <h1 className="text-2xl font-semibold mb-5">Overview</h1>
      {series.data.length === 0 ? (
        <section className="sheet">
          <Nothing>
            No series are defined.{" "}
            <Link className="link" to="/new">
              Define the first one
            </Link>
            , or apply a file with <span className="identifier">youngtally apply FILE</span>.
          </Nothing>
        </section>
      ) : (
        <div className="sheets">
          <div className="sheets lg:grid-cols-[minmax(0,1fr)_18rem] items-start">
            <section className="sheet min-w-0" aria-labelledby="glance">
              <h2 id="glance" className="sheet-title">
                Series at a glance
              </h2>
              <SeriesTable series={atAGlance(series.data)} />
              {series.data.length > GLANCE && (
                <p className="px-4 py-3 text-sm">
                  <Link className="link" to="/series">
                    All {series.data.length} series
                  </Link>
                </p>
              )}
            </section>
            <RunsOut series={series.data} />
          </div>
          <ScanField />
          <JustTaken />
        </div>
      )}
    </>
  );
}
