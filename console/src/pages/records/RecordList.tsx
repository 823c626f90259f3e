import { useState } from "react";
import { Link, useSearchParams } from "react-router";
import { useKinds, useRecords, useUnits } from "../../api/queries.ts";
import { Scroller } from "../../parts/Scroller.tsx";
import { useSession } from "../../parts/Session.tsx";
import { Nothing, Trouble, Waiting } from "../../parts/States.tsx";
import { useSettled } from "../../parts/useSettled.ts";
import { called, unitTitle } from "./record.ts";

const PAGE = 50;

/** Every record that one may see, and the search for one. */
export function RecordList() {
  const { may } = useSession();
  const kinds = useKinds();
  const units = useUnits();
  const [query] = useSearchParams();
  const [text, setText] = useState(query.get("text") ?? "");
  const [kind, setKind] = useState("");
  const [unit, setUnit] = useState("");
  const [deleted, setDeleted] = useState(false);
  const looked = useSettled(text, 150);
  const found = useRecords({ text: looked, kind, unit, deleted }, PAGE);
  const all = found.data?.pages.flatMap((page) => page.records) ?? [];
  return (
    <div className="sheets">
      <div className="flex flex-wrap items-baseline justify-between gap-3">
        <h1 className="text-2xl font-semibold">Records</h1>
        {may("allocate") && (
          <p className="flex gap-2">
            <Link
              className="btn btn-primary"
              to={`/records/new?${new URLSearchParams({ ...(kind && { kind }), ...(unit && { unit }) })}`}
            >
              New record
            </Link>
            <Link className="btn" to="/records/table">
              Fill a table
            </Link>
          </p>
        )}
      </div>
      <section className="sheet" aria-label="Search">
        <form className="p-4 flex flex-wrap gap-3 items-end" role="search" onSubmit={(event) => event.preventDefault()}>
          <label className="grid gap-1 flex-1 min-w-56">
            <span className="text-sm">Name, tax number, or current or earlier identifier</span>
            <input
              type="search"
              className="input w-full"
              autoFocus
              value={text}
              onChange={(event) => setText(event.target.value)}
            />
          </label>
          <label className="grid gap-1">
            <span className="text-sm">Kind</span>
            <select className="select w-40" value={kind} onChange={(event) => setKind(event.target.value)}>
              <option value="">every kind</option>
              {kinds.data?.map((each) => (
                <option key={each.key} value={each.key}>
                  {each.title}
                </option>
              ))}
            </select>
          </label>
          <label className="grid gap-1">
            <span className="text-sm">Unit</span>
            <select className="select w-48" value={unit} onChange={(event) => setUnit(event.target.value)}>
              <option value="">every unit</option>
              {units.data?.map((each) => (
                <option key={each.key} value={each.key}>
                  {each.title}
                </option>
              ))}
            </select>
          </label>
          <label className="flex items-center gap-2 text-sm min-h-10">
            <input
              type="checkbox"
              className="checkbox checkbox-sm"
              checked={deleted}
              onChange={(event) => setDeleted(event.target.checked)}
            />
            include deleted
          </label>
        </form>
        {found.isPending && <Waiting />}
        {found.isError && (
          <div className="p-4">
            <Trouble error={found.error} />
          </div>
        )}
        {found.isSuccess && all.length === 0 && (
          <Nothing>
            {looked || kind || unit
              ? "No records found. Words match from their beginning; void identifiers are found as well."
              : "No records yet. Create the first one with New record."}
          </Nothing>
        )}
        {all.length > 0 && (
          <Scroller label="Records">
            <table className="table" data-testid="records">
              <thead>
                <tr>
                  <th scope="col">Identifier</th>
                  <th scope="col">Kind</th>
                  <th scope="col">What</th>
                  <th scope="col">Units</th>
                </tr>
              </thead>
              <tbody>
                {all.map((record) => {
                  const of = kinds.data?.find((each) => each.key === record.kind);
                  return (
                    <tr key={record.record}>
                      <td>
                        <Link className="identifier link" to={`/records/${record.record}`}>
                          {record.identifier}
                        </Link>
                      </td>
                      <td>{of?.title ?? record.kind}</td>
                      <td>
                        {called(record, of)}
                        {record.deleted && <span className="quiet"> (deleted)</span>}
                      </td>
                      <td>{record.units.map((each) => unitTitle(units.data, each.unit)).join(", ")}</td>
                    </tr>
                  );
                })}
              </tbody>
            </table>
          </Scroller>
        )}
        {found.hasNextPage && (
          <p className="p-4">
            <button
              type="button"
              className="btn btn-sm"
              onClick={() => void found.fetchNextPage()}
              aria-busy={found.isFetchingNextPage}
            >
              Older ones
            </button>
          </p>
        )}
      </section>
    </div>
  );
}
