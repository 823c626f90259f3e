import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { get, sendFile } from "../../api/client.ts";
import { inUse, useKinds, useUnits } from "../../api/queries.ts";
import { Trouble } from "../../parts/States.tsx";
import { count } from "../../parts/words.ts";
import { LineFaults } from "./LineFaults.tsx";

type Filled = { name: string; address: string; filled: number; kept: number };
const ASK_MILLIS = 250;

/** Fills the blank numbers of a table: the file goes in, and comes back with them. */
export function TablePage() {
  const queries = useQueryClient();
  const kinds = useKinds();
  const units = useUnits();
  const [kind, setKind] = useState("");
  const [unit, setUnit] = useState("");
  const [column, setColumn] = useState("");
  const [file, setFile] = useState<File>();
  // The same table sent again, after an answer that never came, gets the same numbers.
  const [key, setKey] = useState(() => crypto.randomUUID());
  const fill = useMutation({
    mutationFn: async (table: File): Promise<Filled> => {
      const query = new URLSearchParams({ unit, name: table.name, ...(column.trim() && { column: column.trim() }) });
      const answer = await sendFile(
        `/kinds/${encodeURIComponent(kind)}/tables?${query}`,
        table,
        "application/octet-stream",
        key,
      );
      return {
        name: table.name,
        address: URL.createObjectURL(await answer.blob()),
        filled: Number(answer.headers.get("Filled")),
        kept: Number(answer.headers.get("Kept")),
      };
    },
    onSuccess: () => setKey(crypto.randomUUID()),
    onSettled: () => void queries.invalidateQueries(),
  });
  /** Another request than the one before. */
  const otherwise = (change: () => void) => {
    change();
    setKey(crypto.randomUUID());
    fill.reset();
  };
  const progress = useQuery({
    queryKey: ["tables", key],
    queryFn: () => get<{ step: string; done: number; of: number }>(`/tables/${key}`),
    enabled: fill.isPending,
    refetchInterval: ASK_MILLIS,
    staleTime: 0,
  });
  return (
    <div className="sheets">
      <h1 className="text-2xl font-semibold">Fill a table</h1>
      <form
        className="sheet"
        aria-label="Fill a table"
        onSubmit={(event) => {
          event.preventDefault();
          if (file && kind && unit && !fill.isPending) fill.mutate(file);
        }}
      >
        <div className="p-4 grid gap-4">
          <p className="quiet">
            Rows with a blank number get one, from top to bottom, each by its route; all of them or none. Those that
            have one are checked and left as they are, and so is every other cell.
          </p>
          <fieldset disabled={fill.isPending} className="grid gap-3 sm:grid-cols-2">
            <label className="grid gap-1">
              <span className="text-sm">Kind</span>
              <select
                className="select w-full"
                required
                value={kind}
                onChange={(event) => otherwise(() => setKind(event.target.value))}
              >
                <option value="">choose</option>
                {inUse(kinds.data).map((each) => (
                  <option key={each.key} value={each.key}>
                    {each.title}
                  </option>
                ))}
              </select>
            </label>
            <label className="grid gap-1">
              <span className="text-sm">Unit</span>
              <select
                className="select w-full"
                required
                value={unit}
                onChange={(event) => otherwise(() => setUnit(event.target.value))}
              >
                <option value="">choose</option>
                {inUse(units.data).map((each) => (
                  <option key={each.key} value={each.key}>
                    {each.title}
                  </option>
                ))}
              </select>
            </label>
            <label className="grid gap-1">
              <span className="text-sm">Table, .csv or .xlsx</span>
              <input
                type="file"
                className="file-input w-full"
                required
                accept=".csv,.xlsx"
                onClick={(event) => {
                  event.currentTarget.value = "";
                  otherwise(() => setFile(undefined));
                }}
                onChange={(event) => {
                  const chosen = event.target.files?.[0];
                  otherwise(() => setFile(chosen));
                }}
              />
            </label>
            <label className="grid gap-1">
              <span className="text-sm">
                Column of the numbers <span className="quiet">(default: the one named like the field)</span>
              </span>
              <input
                className="input w-full"
                value={column}
                autoComplete="off"
                onChange={(event) => otherwise(() => setColumn(event.target.value))}
              />
            </label>
          </fieldset>
          <button type="submit" className="btn btn-primary justify-self-start" aria-busy={fill.isPending}>
            Fill it
          </button>
        </div>
        <div aria-live="polite" className="px-4 pb-4 grid gap-3 empty:hidden">
          {fill.isPending && (
            <label className="grid gap-1">
              <span className="text-sm">
                {progress.data && progress.data.of > 0
                  ? `${progress.data.step}, ${count(progress.data.done)} of ${count(progress.data.of)}`
                  : "reading"}
              </span>
              <progress
                className="progress progress-primary w-full"
                value={progress.data?.of ? progress.data.done : undefined}
                max={progress.data?.of || undefined}
              />
            </label>
          )}
          {fill.isError && <Trouble error={fill.error} />}
          <LineFaults error={fill.error} />
          {fill.data && (
            <div className="border-l-4 border-success bg-base-200 px-4 py-3" data-testid="filled">
              <p>
                {count(fill.data.filled)} filled, {count(fill.data.kept)} had a number already.
              </p>
              <a className="btn btn-sm btn-primary mt-2" href={fill.data.address} download={fill.data.name}>
                Get {fill.data.name}
              </a>
            </div>
          )}
        </div>
      </form>
    </div>
  );
}
