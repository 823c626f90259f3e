import { Problem } from "../../api/client.ts";

/** All lines of a table that have a fault, where the answer tells more than the first. */
export function LineFaults({ error }: { error: unknown }) {
  if (!(error instanceof Problem) || error.faults.length < 2) return null;
  return (
    <ul aria-label="Lines with faults" className="text-sm grid gap-1 max-h-96 overflow-y-auto">
      {error.faults.map((fault) => (
        <li key={fault.line}>
          <strong>Line {fault.line}:</strong> {fault.problem} <span className="quiet">{fault.accepted}</span>
        </li>
      ))}
    </ul>
  );
}
