import { useQuery } from "@tanstack/react-query";
import { definition, entries } from "../../api/client.ts";
import { Trouble, Waiting } from "../../parts/States.tsx";
import { when } from "../../parts/words.ts";
import { draftOf, type Draft } from "./form.ts";

/** What somebody else made of a series while it was being edited. */
export type Newer = { draft: Draft; version: number };

const names: Partial<Record<keyof Draft, string>> = {
  fields: "fields of the record",
  restarts: "restarts",
  ranges: "ranges",
  skipsValues: "skipped values",
  skipsContaining: "skipped counts",
  fiscalYearStarts: "fiscal year",
};

/** Without the numbers by which the page tells rows apart. */
const written = (value: unknown) =>
  JSON.stringify(value, (name, part: unknown) => (name === "id" || part === "" ? undefined : part));

const same = (one: unknown, other: unknown) => written(one) === written(other);

const shown = (value: unknown): string =>
  value === ""
    ? "nothing"
    : typeof value === "string"
      ? value
      : written(value)
          .replace(/["{}[\]]/g, "")
          .replace(/,/g, ", ")
          .replace(/:/g, ": ");

/** Both changes together: what I changed stays mine, all else is as it is by now. */
export const together = (begun: Draft, mine: Draft, theirs: Draft): Draft =>
  Object.fromEntries(
    (Object.keys(mine) as (keyof Draft)[]).map((name) => [
      name,
      same(mine[name], begun[name]) ? theirs[name] : mine[name],
    ]),
  ) as Draft;

/** Says what changed, by whom, and lets both go together: nothing that was typed is lost. */
export function EditConflict({
  begun,
  mine,
  onTake,
  onGoOn,
}: {
  begun: Draft;
  mine: Draft;
  onTake: (part: Partial<Draft>) => void;
  onGoOn: (newer: Newer) => void;
}) {
  const found = useQuery({
    queryKey: ["meanwhile", begun.key],
    queryFn: async () => {
      const [now, history] = await Promise.all([definition(begun.key), entries(begun.key, undefined, 50)]);
      return {
        draft: draftOf(now.form),
        version: now.version,
        last: history.entries.find((entry) => entry.act === "define"),
      };
    },
    staleTime: 0,
    gcTime: 0,
  });
  if (!found.data) return found.isError ? <Trouble error={found.error} /> : <Waiting />;
  const theirs = found.data.draft;
  const changed = (Object.keys(theirs) as (keyof Draft)[]).filter((name) => !same(theirs[name], begun[name]));
  return (
    <section className="border-l-4 border-warning bg-base-200 px-4 py-3 grid gap-3" aria-labelledby="meanwhile">
      <h2 id="meanwhile" className="font-semibold">
        {found.data.last
          ? `${found.data.last.by} changed this series ${when(found.data.last.at)}`
          : "Somebody else changed this series"}
        , while you were editing it
      </h2>
      <p className="text-sm">
        Your edit is kept. Version {found.data.version} differs from the version that you started with in{" "}
        {changed.length === 1 ? "one place" : `${changed.length} places`}:
      </p>
      <table className="table table-sm">
        <thead>
          <tr>
            <th>What</th>
            <th>Was</th>
            <th>Their edit</th>
            <th>Yours</th>
          </tr>
        </thead>
        <tbody>
          {changed.map((name) => {
            const touched = !same(mine[name], begun[name]) && !same(mine[name], theirs[name]);
            return (
              <tr key={name}>
                <th scope="row" className="font-medium">
                  {names[name] ?? name}
                </th>
                <td>{shown(begun[name])}</td>
                <td>{shown(theirs[name])}</td>
                <td>
                  {touched ? (
                    <>
                      {shown(mine[name])}{" "}
                      <button
                        type="button"
                        className="btn btn-xs"
                        aria-label={`Use their edit: ${name}`}
                        onClick={() => onTake({ [name]: theirs[name] })}
                      >
                        Use their edit
                      </button>
                    </>
                  ) : (
                    <span className="quiet">their edit</span>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <button
        type="button"
        className="btn btn-primary btn-sm justify-self-start"
        onClick={() => onGoOn({ draft: theirs, version: found.data.version })}
      >
        Merge
      </button>
      <p className="quiet text-sm">
        Merge keeps your edit where you made one, and their edit everywhere else. Check the preview, then save.
      </p>
    </section>
  );
}
