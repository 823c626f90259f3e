import type { Fault } from "../api/client.ts";
import { placed } from "./words.ts";

const MOST = 20;

/** Each fault at its line, or at what it is about. */
export function FaultList({ faults, label }: { faults: Fault[]; label: string }) {
  return (
    <ul className="grid gap-2" aria-label={label}>
      {faults.slice(0, MOST).map((fault) => (
        <li key={fault.path + fault.problem} className="border-l-4 border-error bg-base-200 px-4 py-2">
          <p>
            {fault.line && <strong className="text-error">Line {fault.line}:</strong>}{" "}
            <span className="identifier">{placed(fault.path)}</span> {fault.problem}
          </p>
          <p className="quiet text-sm">{fault.accepted}</p>
        </li>
      ))}
      {faults.length > MOST && <li className="quiet">… and {faults.length - MOST} more</li>}
    </ul>
  );
}
