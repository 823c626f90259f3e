import { useEffect, useRef, useState } from "react";
import type { DocumentChange, DocumentItem, DocumentSheet } from "../../api/client.ts";

type Box = { left: number; top: number; width: number; height: number };

/** More would be slow to click through. */
const MOST = 2_000;
/** Nothing of the drawing is fetched, and nothing runs: neither in the frame nor by its policy. */
const POLICY = "default-src 'none'; style-src 'unsafe-inline'; img-src data:; font-src data:";

/** A drawing in a frame that can do nothing, and over it a button at each of its texts. */
export function DrawingView({
  sheet,
  svg,
  items,
  changes,
  picked,
  pick,
  place,
}: {
  sheet: DocumentSheet;
  svg: string;
  items: DocumentItem[];
  changes: Map<string, DocumentChange>;
  picked: string[];
  pick: (item: string) => void;
  place: (places: Map<string, { x: number; y: number }>) => void;
}) {
  const frame = useRef<HTMLIFrameElement>(null);
  const [width, setWidth] = useState(0);
  const [boxes, setBoxes] = useState(new Map<string, Box>());
  const [loaded, setLoaded] = useState(0);
  const height = sheet.width > 0 ? (width * sheet.height) / sheet.width : width;

  useEffect(() => {
    const around = frame.current?.parentElement;
    if (!around) return;
    const watch = new ResizeObserver(() => setWidth(around.clientWidth));
    watch.observe(around);
    return () => watch.disconnect();
  }, []);

  useEffect(() => {
    const texts = frame.current?.contentDocument?.querySelectorAll("svg text, svg tspan, svg textPath, svg a");
    if (!texts || loaded === 0 || width === 0) return;
    const drawn = [...texts].filter((each) => each.namespaceURI === "http://www.w3.org/2000/svg");
    const found = new Map<string, Box>();
    const unknown = new Map<string, { x: number; y: number }>();
    const scale = sheet.width / width;
    for (const item of items) {
      const box = item.element === undefined ? undefined : drawn[item.element]?.getBoundingClientRect();
      if (!box || (box.width === 0 && box.height === 0)) continue;
      found.set(item.item, box);
      if (!item.place) unknown.set(item.item, { x: box.left * scale, y: box.bottom * scale });
    }
    setBoxes(found);
    if (unknown.size > 0) place(unknown);
  }, [items, loaded, width, sheet.width, place]);

  return (
    <div className="relative bg-white" style={{ height }}>
      <iframe
        ref={frame}
        title={`The drawing ${sheet.name}`}
        className="absolute inset-0 w-full h-full"
        sandbox="allow-same-origin"
        tabIndex={-1}
        srcDoc={`<!doctype html><meta http-equiv="Content-Security-Policy" content="${POLICY}"><style>html,body{margin:0;overflow:hidden;background:white}svg{display:block;width:100%;height:auto}</style>${content(svg)}`}
        onLoad={() => setLoaded(loaded + 1)}
      />
      {items.slice(0, MOST).map((item) => {
        const box = boxes.get(item.item);
        return box ? (
          <Mark
            key={item.item}
            item={item}
            box={box}
            change={changes.get(item.item)}
            at={picked.indexOf(item.item)}
            right={box.left > width * 0.9}
            pick={() => pick(item.item)}
          />
        ) : null;
      })}
    </div>
  );
}

/** The drawing itself, without what stands before it in a file of XML. */
const content = (svg: string) => svg.slice(Math.max(0, svg.search(/<([\w-]+:)?svg[\s>]/)));

function Mark({
  item,
  box,
  change,
  at,
  right,
  pick,
}: {
  item: DocumentItem;
  box: Box;
  change: DocumentChange | undefined;
  at: number;
  /** Whether there is room at its left alone. */
  right: boolean;
  pick: () => void;
}) {
  return (
    <button
      type="button"
      className={`absolute cursor-pointer rounded border ${at >= 0 ? "border-2 border-blue-700 bg-blue-100/50" : change ? "border-red-700" : "border-transparent hover:border-slate-500"}`}
      style={{ left: box.left - 3, top: box.top - 3, width: box.width + 6, height: box.height + 6 }}
      aria-label={`${item.text.trim() || "no text"}${change ? `, new: ${change.after}` : ""}`}
      aria-pressed={at >= 0}
      data-item={item.item}
      onClick={pick}
    >
      {change && (
        <span
          className={`absolute top-0 ${right ? "right-full" : "left-full"} -translate-y-1/2 rounded bg-red-700 px-1 text-xs leading-4 text-white whitespace-nowrap`}
        >
          {change.after}
        </span>
      )}
    </button>
  );
}
