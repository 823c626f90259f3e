import type { Fault } from "../../api/client.ts";
import { seriesProperties } from "../../api/seriesProperties.ts";
import { Field } from "./Field.tsx";
import { faultsAt, pathOf, singles, type Draft, type Single } from "./form.ts";

/** Those that have a place of their own on the page. */
const placed: ReadonlySet<string> = new Set([
  "key",
  "title",
  "namespace",
  "pattern",
  "locale",
  "fiscalYearStarts",
  "order",
  "longest",
  "symbols",
  "typed",
  "gaps",
  "returns",
  "chronological",
  "proof",
] satisfies Single[]);

const label = (name: Single): string => {
  const words = seriesProperties[name].inFiles.replaceAll("-", " ");
  return words.charAt(0).toUpperCase() + words.slice(1);
};

/** Whatever else a series can say, each as the list of properties describes it. A series that is new cannot be retired yet. */
export function OtherProperties({
  exists,
  draft,
  faults,
  onChange,
}: {
  exists: boolean;
  draft: Draft;
  faults: Fault[];
  onChange: (part: Partial<Draft>) => void;
}) {
  return singles
    .filter((name) => !placed.has(name) && (exists || name !== "retired"))
    .map((name) => {
      const { kind, words, meaning } = seriesProperties[name];
      const own = faultsAt(faults, pathOf(name));
      const common = {
        id: name,
        value: draft[name],
        "aria-invalid": own.length > 0,
        "aria-describedby": `${name}-faults`,
      };
      return (
        <Field key={name} id={name} label={label(name)} hint={meaning} faults={own}>
          {kind === "word" || kind === "flag" ? (
            <select
              {...common}
              className="select w-full"
              onChange={(event) => onChange({ [name]: event.target.value })}
            >
              <option value="">default</option>
              {(kind === "word" ? words : ["true", "false"]).map((word) => (
                <option key={word} value={word}>
                  {word}
                </option>
              ))}
            </select>
          ) : (
            <input
              {...common}
              className={`input w-full ${own.length > 0 ? "input-error" : ""}`}
              autoComplete="off"
              onChange={(event) => onChange({ [name]: event.target.value })}
            />
          )}
        </Field>
      );
    });
}
