import type { Settlement } from "../api/client.ts";
import { count, span } from "./words.ts";

const words: Record<string, string> = {
  confirm: "Issued",
  release: "Released",
  return: "Given back",
  void: "Void",
  use: "Reported as used",
  split: "Handed on",
  close: "Closed",
  reopen: "Open again",
};

/** What an act made of numbers. */
export function Settled({ settlement }: { settlement: Settlement }) {
  return (
    <div className="border-l-4 border-success bg-base-200 px-4 py-3" data-testid="settled">
      <p className="text-sm">
        {words[settlement.act] ?? settlement.act}
        {settlement.state === "returned"
          ? ", and given next"
          : ["released", "unused", "closed"].includes(settlement.state ?? "")
            ? ", and void"
            : ""}
        {settlement.repeated && " before, for the same request"}, entry {settlement.seq}
      </p>
      {settlement.first && (
        <p className="identifier font-semibold">
          {span(settlement.first, settlement.last)}
          {settlement.quantity > 1 && <span className="quiet font-normal"> ({count(settlement.quantity)})</span>}
        </p>
      )}
    </div>
  );
}
