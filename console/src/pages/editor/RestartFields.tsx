import type { Fault } from "../../api/client.ts";

const periods = [
  { word: "year", name: "each year" },
  { word: "fiscal-year", name: "each fiscal year" },
  { word: "quarter", name: "each quarter" },
  { word: "month", name: "each month" },
  { word: "week", name: "each week" },
  { word: "day", name: "each day" },
];

/** When the count begins again at its first value. */
export function RestartFields({
  restarts,
  fields,
  faults,
  onChange,
}: {
  restarts: string[];
  fields: string[];
  faults: Fault[];
  onChange: (restarts: string[]) => void;
}) {
  const byField = fields
    .filter((name) => name !== "")
    .map((name) => ({ word: name === "unit" ? name : `field ${name}`, name: `with each ${name}` }));
  // One that was named before its field was renamed can still be taken back.
  const others = restarts
    .filter((word) => ![...periods, ...byField].some((each) => each.word === word))
    .map((word) => ({ word, name: word }));
  return (
    <fieldset>
      <legend className="text-sm mb-1">
        The count restarts <span className="quiet">{restarts.length === 0 ? "(never)" : ""}</span>
      </legend>
      <div className="flex flex-wrap gap-x-5 gap-y-1">
        {[...periods, ...byField, ...others].map((period) => (
          <label key={period.word} className="flex items-center gap-2 text-sm">
            <input
              type="checkbox"
              className="checkbox checkbox-sm"
              checked={restarts.includes(period.word)}
              onChange={(event) =>
                onChange(
                  event.target.checked ? [...restarts, period.word] : restarts.filter((word) => word !== period.word),
                )
              }
            />
            {period.name}
          </label>
        ))}
      </div>
      {faults.map((fault) => (
        <p key={fault.problem} className="text-error text-sm">
          {fault.problem}; {fault.accepted}
        </p>
      ))}
    </fieldset>
  );
}
