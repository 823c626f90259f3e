import { useUnits, useVersions } from "../../api/queries.ts";
import { Trouble, Waiting } from "../../parts/States.tsx";
import { when } from "../../parts/words.ts";
import { unitTitle } from "./record.ts";

const words: Record<string, string> = {
  save: "saved",
  change: "changed",
  renumber: "renumbered",
  share: "shared",
  delete: "deleted",
};

/** Every version of a record: who changed what, when and why. */
export function History({ record }: { record: string }) {
  const versions = useVersions(record);
  const units = useUnits();
  return (
    <section className="sheet" aria-labelledby="history">
      <h2 id="history" className="sheet-title">
        History
      </h2>
      {versions.isPending && <Waiting />}
      {versions.isError && (
        <div className="p-4">
          <Trouble error={versions.error} />
        </div>
      )}
      <ol className="divide-y divide-base-300" data-testid="history">
        {versions.data?.map((version) => (
          <li key={version.version} className="px-4 py-3 grid gap-1">
            <p className="flex flex-wrap gap-x-3">
              <span className="identifier font-semibold">{version.identifier}</span>
              <span>
                {words[version.act] ?? version.act} in {unitTitle(units.data, version.unit)} by {version.by}
              </span>
              <span className="quiet text-sm self-center">
                {when(version.at)}, entry {version.seq}
              </span>
            </p>
            {version.note && <p className="text-sm">{version.act === "change" ? version.note : `“${version.note}”`}</p>}
            {version.act !== "save" && version.changes.length > 0 && (
              <ul className="text-sm quiet">
                {version.changes.map((change) => (
                  <li key={change.unit + change.field}>
                    {change.field}
                    {version.changes.some((other) => other.unit !== change.unit) &&
                      ` in ${unitTitle(units.data, change.unit)}`}
                    : {change.before ?? "nothing"} → {change.after ?? "nothing"}
                  </li>
                ))}
              </ul>
            )}
          </li>
        ))}
      </ol>
    </section>
  );
}
