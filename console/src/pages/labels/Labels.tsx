import type { LabelPreview } from "../../api/client.ts";

/** A path into a layout, with its items from 1. */
const counted = (path: string) => path.replace(/\[(\d+)]/g, (_, index: string) => `[${Number(index) + 1}]`);

/** A picture that cannot run anything. */
const picture = (svg: string) => `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`;

/** Some labels of a preview, and what keeps them from being printed. */
export function Labels({
  preview,
  from,
  size,
  turn,
  wide,
}: {
  preview: LabelPreview;
  from: number;
  size: number;
  turn: (from: number) => void;
  wide?: boolean;
}) {
  const last = from + preview.shown.length - 1;
  return (
    <section className="sheet" aria-labelledby="labels">
      <h2 id="labels" className="sheet-title">
        {preview.labels.toLocaleString("en")} {preview.labels === 1 ? "label" : "labels"} on{" "}
        {preview.pages.toLocaleString("en")} {preview.pages === 1 ? "page" : "pages"}
      </h2>
      {preview.faults.length > 0 && (
        <ul className="px-4 pt-4 grid gap-2" aria-label="Faults">
          {preview.faults.map((fault) => (
            <li key={fault.path + fault.problem} className="border-l-4 border-error bg-base-200 px-4 py-2">
              <p>
                <strong className="text-error">
                  {fault.line ? `Line ${fault.line}, label` : "Label"} {fault.label} cannot be printed:
                </strong>{" "}
                <span className="identifier">{counted(fault.path)}</span> {fault.problem}
              </p>
              <p className="quiet text-sm">{fault.accepted}</p>
            </li>
          ))}
        </ul>
      )}
      <ul className={`p-4 grid gap-4 ${wide ? "" : "sm:grid-cols-2 lg:grid-cols-3"}`} aria-label="Expected labels">
        {preview.shown.map((label) => (
          <li key={label.number} className="grid gap-1 content-start">
            <img
              className="w-full border border-base-300 bg-white"
              src={picture(label.picture)}
              alt={`Label ${label.number}, ${label.identifier} expected`}
            />
            <p className="text-sm">
              <span className="quiet">{label.number}</span> <span className="identifier">{label.identifier}</span>{" "}
              <span className="quiet">expected</span>
            </p>
          </li>
        ))}
      </ul>
      {preview.labels > size && (
        <div className="px-4 pb-4 flex gap-3 items-center flex-wrap">
          <button
            type="button"
            className="btn btn-sm"
            disabled={from === 1}
            onClick={() => turn(Math.max(1, from - size))}
          >
            Earlier
          </button>
          <button
            type="button"
            className="btn btn-sm"
            disabled={last >= preview.labels}
            onClick={() => turn(from + size)}
          >
            Later
          </button>
          <span className="quiet text-sm">
            {from.toLocaleString("en")} to {last.toLocaleString("en")} of {preview.labels.toLocaleString("en")}
          </span>
        </div>
      )}
    </section>
  );
}
