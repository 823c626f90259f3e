import { Link } from "react-router";
import { usePrinters } from "../../api/queries.ts";

/** Chooses one of the printers that labels may be sent to; nothing where there is none. */
export function PrinterChoice({
  none,
  value,
  set,
}: {
  /** What it means to choose none. */
  none: string;
  value: string;
  set: (printer: string) => void;
}) {
  const printers = usePrinters();
  if (!printers.data || printers.data.length === 0) return null;
  const simulated = printers.data.find((each) => each.simulated);
  return (
    <div className="grid gap-1 max-w-xl">
      <label className="grid gap-1">
        <span className="text-sm">Printer</span>
        <select
          className="select w-full truncate pr-10 appearance-none"
          value={value}
          onChange={(event) => set(event.target.value)}
        >
          <option value="">{none}</option>
          {printers.data.map((printer) => (
            <option key={printer.address} value={printer.address}>
              {printer.name ?? printer.address},{" "}
              {printer.problem ?? (printer.accepts ? printer.state : "accepts no jobs")}
            </option>
          ))}
        </select>
      </label>
      {simulated && (
        <p className="text-sm">
          <Link className="link" to="/labels/simulated-printer">
            Look at the simulated printer
          </Link>
        </p>
      )}
    </div>
  );
}
