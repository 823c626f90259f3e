import type { Settlement } from "../api/client.ts";
import { count, span } from "./words.ts";

const words: Record<string, string> = {
  confirm: "Issued",
  release: "Released",
  return: "Returned",
  void: "Voided",
  use: "Reported as used",
  split: "Block split",
  close: "Closed",
  reopen: "Reopened",
  state: "Stated",
  resume: "Numbers are allocated again",
};

/** What an act made of numbers. */
export function Settled({ settlement }: { settlement: Settlement }) {
  return (
    <div className="border-l-4 border-success bg-base-200 px-4 py-3" data-testid="settled">
      <p className="text-sm">
        {words[settlement.act] ?? settlement.act}
        {settlement.state === "returned"
          ? ", issued next"
          : ["released", "unused", "closed"].includes(settlement.state ?? "")
            ? ", void"
            : ""}
        {settlement.repeated && " before, by the same request"}, entry {settlement.seq}
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
