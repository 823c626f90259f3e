import type { Fault } from "../../api/client.ts";

/** A labelled field with its faults under it. */
export function Field({
  label,
  hint,
  faults,
  id,
  children,
}: {
  label: string;
  hint?: string;
  faults: Fault[];
  id: string;
  children: React.ReactNode;
}) {
  return (
    <div className="grid gap-1 content-start">
      <label className="text-sm" htmlFor={id}>
        {label} {hint && <span className="quiet">{hint}</span>}
      </label>
      {children}
      <div id={`${id}-faults`} aria-live="polite">
        {faults.map((fault) => (
          <p key={fault.problem} className="text-error text-sm">
            {fault.problem}; {fault.accepted}
          </p>
        ))}
      </div>
    </div>
  );
}
