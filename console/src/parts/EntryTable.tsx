import { Link } from "react-router";
import type { EntryView } from "../api/client.ts";
import { count, span, when } from "./words.ts";
import { Scroller } from "./Scroller.tsx";

const words: Record<string, string> = {
  allocate: "issued",
  block: "block allocated",
  define: "defined",
  hold: "held",
  type: "typed",
  confirm: "confirmed",
  release: "released",
  lapse: "lapsed",
  return: "returned",
  void: "voided",
  use: "used",
  split: "block split",
  close: "period closed",
  reopen: "period reopened",
  remove: "route removed",
  access: "access",
  save: "record saved",
  change: "record changed",
  renumber: "renumbered",
  share: "shared",
  delete: "record deleted",
  fill: "table filled",
  print: "labels printed",
  send: "labels sent",
  note: "labels noted",
  reprint: "labels reprinted",
  spoil: "labels spoiled",
  cancel: "labels cancelled",
};

/** The acts on one record. */
const ofRecord = ["save", "change", "renumber", "share", "delete"];

/** The acts on labels, which say of which job they are. */
const ofLabels = ["send", "note", "reprint", "spoil", "cancel"];

function what(entry: EntryView) {
  if (entry.act === "close" || entry.act === "reopen")
    return (
      <Link className="link" to={entry.act === "close" ? `/closings/${entry.seq}` : "/closings"}>
        a period
      </Link>
    );
  if (entry.first && ofRecord.includes(entry.act))
    return (
      <Link className="link identifier" to={`/records?${new URLSearchParams({ text: entry.first })}`}>
        {entry.first}
      </Link>
    );
  const job = ofLabels.includes(entry.act) ? entry.note?.match(/^label job (\d+)/)?.[1] : undefined;
  if (job)
    return (
      <Link className="link" to={`/labels/jobs/${job}`}>
        label job {job}
      </Link>
    );
  if (entry.act === "print")
    return (
      <Link className="link identifier" to={`/labels/jobs/${entry.seq}`}>
        {span(entry.first, entry.last)}
      </Link>
    );
  if (entry.first) return <span className="identifier">{span(entry.first, entry.last)}</span>;
  return (
    <span>{entry.defined?.length === 1 ? entry.defined[0] : `${count(entry.defined?.length ?? 0)} definitions`}</span>
  );
}

/** Entries of the ledger from new to old. */
export function EntryTable({ entries, withSeries }: { entries: EntryView[]; withSeries?: boolean }) {
  return (
    <Scroller label="Entries">
      <table className="table table-sm">
        <thead>
          <tr>
            <th className="text-right">Entry</th>
            <th>What</th>
            {withSeries && <th>Series</th>}
            <th>Act</th>
            <th>Dated</th>
            <th>For</th>
            <th>By</th>
            <th>When</th>
          </tr>
        </thead>
        <tbody>
          {entries.map((entry) => (
            <tr key={entry.seq}>
              <td className="text-right tabular-nums">{entry.seq}</td>
              <td>
                {what(entry)}
                {(entry.quantity ?? 1) > 1 && <span className="quiet ml-1.5">({count(entry.quantity ?? 0)})</span>}
              </td>
              {withSeries && (
                <td>
                  {entry.series ? (
                    <Link className="link" to={`/series/${entry.series}`}>
                      {entry.series}
                    </Link>
                  ) : (
                    "—"
                  )}
                </td>
              )}
              <td>{words[entry.act] ?? entry.act}</td>
              <td className="whitespace-nowrap tabular-nums">{entry.date ?? "—"}</td>
              <td>
                {entry.reference ?? entry.note ?? (entry.kind && entry.unit ? `${entry.kind} in ${entry.unit}` : "—")}
              </td>
              <td>{entry.by}</td>
              <td className="whitespace-nowrap">{when(entry.at)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Scroller>
  );
}
