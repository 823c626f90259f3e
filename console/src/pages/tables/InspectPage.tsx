import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { inspectTable, type TableColumn } from "../../api/client.ts";
import { useSeriesList } from "../../api/queries.ts";
import { Trouble } from "../../parts/States.tsx";
import { Findings } from "./Findings.tsx";

/** Looks through the numbers of a table: nothing is changed, and the file is not kept. */
export function InspectPage() {
  const series = useSeriesList();
  const [file, setFile] = useState<File>();
  const [chosen, setChosen] = useState("");
  const [column, setColumn] = useState("");
  const inspection = useMutation({
    mutationFn: ({ table, column }: { table: File; column: string }) =>
      inspectTable(table, { series: chosen, column: column.trim() }),
  });
  const inspect = (column: string) => {
    if (file && !inspection.isPending) inspection.mutate({ table: file, column });
  };
  return (
    <div className="sheets">
      <h1 className="text-2xl font-semibold">Inspect a table</h1>
      <form
        className="sheet"
        aria-label="Inspect a table"
        onSubmit={(event) => {
          event.preventDefault();
          inspect(column);
        }}
      >
        <div className="p-4 grid gap-4">
          <p className="quiet">
            See which numbers a table holds: blanks, duplicates, gaps, the lowest and highest by value, and texts that
            are no numbers. Nothing is changed and the file is not kept. To put right what is wrong and continue from
            there,{" "}
            <Link className="link" to="/tables/repair">
              repair the table
            </Link>
            ; to number blank rows only,{" "}
            <Link className="link" to="/records/table">
              fill it
            </Link>
            .
          </p>
          <fieldset disabled={inspection.isPending} className="grid gap-3 sm:grid-cols-3">
            <label className="grid gap-1">
              <span className="text-sm">Table</span>
              <input
                type="file"
                className="file-input w-full"
                required
                accept=".csv,.tsv,.txt,.xlsx,.jsonl,.ndjson"
                onChange={(event) => {
                  setFile(event.target.files?.[0]);
                  setColumn("");
                  inspection.reset();
                }}
              />
            </label>
            <label className="grid gap-1">
              <span className="text-sm">Series of the numbers</span>
              <select className="select w-full" value={chosen} onChange={(event) => setChosen(event.target.value)}>
                <option value="">unknown: by shape</option>
                {(series.data ?? []).map((each) => (
                  <option key={each.key} value={each.key}>
                    {each.title}
                  </option>
                ))}
              </select>
            </label>
            <label className="grid gap-1">
              <span className="text-sm">
                Column <span className="quiet">(default: the likeliest)</span>
              </span>
              <input
                className="input w-full"
                value={column}
                autoComplete="off"
                onChange={(event) => setColumn(event.target.value)}
              />
            </label>
          </fieldset>
          <button type="submit" className="btn btn-primary justify-self-start" aria-busy={inspection.isPending}>
            Inspect
          </button>
        </div>
        <div aria-live="polite" className="px-4 pb-4 grid gap-2 empty:hidden">
          {inspection.isPending && <progress className="progress progress-primary w-full" aria-label="Inspecting" />}
          {inspection.isError && <Trouble error={inspection.error} />}
          {inspection.data?.notes.map((note) => (
            <p key={note} className="border-l-4 border-warning bg-base-200 px-4 py-2">
              {note}
            </p>
          ))}
        </div>
      </form>
      {inspection.data?.inspections.map((found) => (
        <Findings key={found.column} found={found} />
      ))}
      {inspection.data && (
        <Columns
          columns={inspection.data.columns}
          shown={inspection.data.inspections[0]?.column}
          choose={(name) => {
            setColumn(name);
            inspect(name);
          }}
        />
      )}
    </div>
  );
}

const percent = (share: number): string => `${Math.round(share * 100)} %`;

/** The columns of the table, those that likely hold the identifiers first. */
function Columns({
  columns,
  shown,
  choose,
}: {
  columns: TableColumn[];
  shown?: string;
  choose: (name: string) => void;
}) {
  return (
    <section className="sheet" aria-labelledby="columns">
      <h2 id="columns" className="sheet-title">
        Columns
      </h2>
      <div className="overflow-x-auto">
        <table className="table table-sm">
          <thead>
            <tr>
              <th>Column</th>
              <th className="text-right">Likely the identifier</th>
              <th className="text-right">Filled</th>
              <th className="text-right">Different</th>
              <th>Shape</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {columns.map((column) => (
              <tr key={column.name}>
                <td>{column.name}</td>
                <td className="text-right">{percent(column.likely)}</td>
                <td className="text-right">{percent(column.filled)}</td>
                <td className="text-right">{percent(column.different)}</td>
                <td className="identifier">{column.shape}</td>
                <td>
                  {column.name === shown ? (
                    <span className="quiet">shown</span>
                  ) : (
                    <button type="button" className="btn btn-xs" onClick={() => choose(column.name)}>
                      Inspect <span className="sr-only">{column.name}</span>
                    </button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}
