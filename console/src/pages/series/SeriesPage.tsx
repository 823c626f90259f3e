import { useState } from "react";
import { Link, useParams } from "react-router";
import { useEntries, useSeries, useUses } from "../../api/queries.ts";
import { useSession } from "../../parts/Session.tsx";
import { EntryTable } from "../../parts/EntryTable.tsx";
import { Nothing, Trouble, Waiting } from "../../parts/States.tsx";
import { StateWord } from "../../parts/StateWord.tsx";
import { leftText, when } from "../../parts/words.ts";
import { FieldInputs, isComplete } from "../../parts/FieldInputs.tsx";
import { useSettled } from "../../parts/useSettled.ts";
import { AllocatePanel } from "./AllocatePanel.tsx";
import { RangeTable } from "./RangeTable.tsx";
import { SettlePanel } from "./SettlePanel.tsx";
import { UsePanel } from "./UsePanel.tsx";

function Ledger({ series }: { series: string }) {
  const entries = useEntries(series, 20);
  const shown = entries.data?.pages.flatMap((page) => page.entries) ?? [];
  return (
    <section className="sheet" aria-labelledby="ledger">
      <h2 id="ledger" className="sheet-title">
        Ledger
      </h2>
      {entries.isPending && <Waiting />}
      {entries.isError && <Trouble error={entries.error} />}
      {shown.length > 0 && <EntryTable entries={shown} />}
      {entries.hasNextPage && (
        <div className="p-3">
          <button
            type="button"
            className="btn btn-sm"
            disabled={entries.isFetchingNextPage}
            onClick={() => void entries.fetchNextPage()}
          >
            Older entries
          </button>
        </div>
      )}
    </section>
  );
}

/** The records that it numbers. */
function UsedBy({ series }: { series: string }) {
  const uses = useUses(series);
  return (
    <section className="sheet" aria-labelledby="used-by">
      <h2 id="used-by" className="sheet-title">
        Routes to this series
      </h2>
      {uses.isPending && <Waiting />}
      {uses.isError && <Trouble error={uses.error} />}
      {uses.data?.length === 0 && (
        <Nothing>
          None: numbers are allocated from it by name.{" "}
          <Link className="link" to="/routes">
            Kinds and routes
          </Link>
        </Nothing>
      )}
      {uses.data && uses.data.length > 0 && (
        <ul className="px-4 py-3 grid gap-1">
          {uses.data.map((route) => (
            <li key={route.route}>
              <span className="font-medium">{route.kind}</span> in {route.unit} and below
              {route.condition && (
                <>
                  , when <span className="identifier">{route.condition}</span>
                </>
              )}
              , into <span className="identifier">{route.into}</span>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

export function SeriesPage() {
  const { key = "" } = useParams();
  const { may } = useSession();
  const [date, setDate] = useState("");
  const [fields, setFields] = useState<Record<string, string>>({});
  const asked = useSettled(fields, 150);
  const query = useSeries(key, date);
  const complete = isComplete(query.data?.fields ?? [], asked);
  const coming = useSeries(key, date, asked, complete && (query.data?.fields.length ?? 0) > 0);
  if (query.isPending) return <Waiting />;
  if (query.isLoadingError) return <Trouble error={query.error} />;
  const series = query.data;
  const ahead = series.fields.length === 0 ? series : complete ? coming.data : undefined;
  return (
    <>
      <p className="text-sm mb-1">
        <Link className="link" to="/series">
          Series
        </Link>{" "}
        <span aria-hidden="true">/</span> <span className="identifier">{series.key}</span>
      </p>
      <div className="flex flex-wrap items-center gap-3 mb-2">
        <h1 className="text-2xl font-semibold">{series.title}</h1>
        <StateWord series={series} />
        {may("define") && (
          <Link className="btn btn-sm ml-auto" to={`/series/${series.key}/edit`}>
            Edit
          </Link>
        )}
      </div>
      {Object.entries(series.about).map(([name, text]) => (
        <p key={name} className="max-w-prose mb-3">
          {text}
        </p>
      ))}
      <dl className="flex flex-wrap gap-x-8 gap-y-1 mb-6 text-sm">
        {[
          ["Pattern", series.pattern],
          ["Namespace", series.namespace],
          [
            "Restarts",
            series.restarts.length === 0
              ? "never"
              : series.restarts.map((word) => `each ${word.replace("field ", "").replace("-", " ")}`).join(" and "),
          ],
          ...(series.order === "in-turn" ? [] : [["Order", series.order]]),
          ["Numbers", series.policy.chronological ? "chronological" : series.policy.gaps ? "gaps allowed" : "gap-free"],
          ...(series.policy.typed === "refused" ? [] : [["Typing", series.policy.typed]]),
          ["Version", String(series.version)],
        ].map(([name, value]) => (
          <div key={name} className="flex gap-2">
            <dt className="quiet">{name}</dt>
            <dd className="identifier">{value}</dd>
          </div>
        ))}
        {series.newest && (
          <div className="flex gap-2">
            <dt className="quiet">Newest</dt>
            <dd>
              <span className="identifier">{series.newest.identifier}</span>, {when(series.newest.at)} by{" "}
              {series.newest.by}
            </dd>
          </div>
        )}
      </dl>
      {series.warnings.length > 0 && (
        <p role="status" className="border-l-4 border-warning bg-base-200 px-4 py-2 mb-5">
          <strong>Action needed:</strong> {series.warnings.join("; ")}.
        </p>
      )}
      <div className="sheets">
        <div className="sheets lg:grid-cols-[20rem_minmax(0,1fr)] items-start">
          <div className="sheets">
            {(may("allocate") || may("hold")) && (
              <AllocatePanel key={series.key} series={series} date={date} onDate={setDate} fields={fields}>
                <FieldInputs rules={series.fields} values={fields} onChange={setFields} />
              </AllocatePanel>
            )}
            {(may("allocate") || may("hold") || may("void")) && (
              <SettlePanel key={`became ${series.key}`} series={series} />
            )}
          </div>
          <div className="sheets">
            <section aria-labelledby="next">
              <h2 id="next" className="font-semibold mb-2">
                Next on {series.date}{" "}
                {(ahead ?? series).left !== undefined && (
                  <span className="quiet font-normal">— {leftText((ahead ?? series).left, series.order)} left</span>
                )}
              </h2>
              {coming.isError && complete && <Trouble error={coming.error} />}
              {!ahead ? (
                <div className="sheet">
                  <Nothing>
                    The next identifiers depend on {series.fields.map((field) => field.name).join(", ")}.
                  </Nothing>
                </div>
              ) : ahead.next.length === 0 ? (
                <div className="sheet">
                  <Nothing>No numbers are left for this date.</Nothing>
                </div>
              ) : (
                <ul className="strip" tabIndex={0} aria-label="Next identifiers">
                  {ahead.next.map((identifier) => (
                    <li key={identifier} className="identifier">
                      {identifier}
                    </li>
                  ))}
                </ul>
              )}
            </section>
            <RangeTable series={series} />
            <UsedBy series={series.key} />
            <UsePanel series={series} />
          </div>
        </div>
        <Ledger series={series.key} />
      </div>
    </>
  );
}
