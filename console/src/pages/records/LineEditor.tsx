import { useRef } from "react";
import type { KindView } from "../../api/client.ts";
import { FieldInputs } from "../../parts/FieldInputs.tsx";
import { given, type Line } from "./record.ts";

/** What each line's number will be once it is saved: as the service counts them. */
const numbers = (lines: Line[], step: number, fixed: boolean, last: number): number[] => {
  let next = fixed ? last : 0;
  return lines.map((line) => {
    if (fixed && line.number !== undefined) return line.number;
    next = (Math.floor(next / step) + 1) * step;
    return next;
  });
};

/** The lines of a document: added, taken out and moved; their numbers close up, unless the document is fixed. @param last the highest number that one ever had */
export function LineEditor({
  kind,
  lines,
  onChange,
  fixed = false,
  last = 0,
  faulty,
  remark,
}: {
  kind: KindView;
  lines: Line[];
  onChange: (lines: Line[]) => void;
  fixed?: boolean;
  last?: number;
  faulty?: number;
  remark?: string;
}) {
  const list = useRef<HTMLOListElement>(null);
  const numbered = numbers(lines, kind.lineStep, fixed, last);
  const focusLine = (index: number) =>
    requestAnimationFrame(() =>
      list.current?.querySelectorAll<HTMLInputElement>(`:scope > li:nth-child(${index + 1}) input`)[0]?.focus(),
    );
  const add = () => {
    onChange([...lines, { id: crypto.randomUUID(), fields: {} }]);
    focusLine(lines.length);
  };
  const move = (index: number, by: number) => {
    const next = [...lines];
    const [line] = next.splice(index, 1);
    if (line) next.splice(index + by, 0, line);
    onChange(next);
  };
  return (
    <fieldset className="grid gap-2">
      <legend className="text-sm font-semibold mb-1">
        Lines
        {fixed && (
          <span className="quiet font-normal"> · frozen: each line keeps its number, also when others are removed</span>
        )}
      </legend>
      <ol ref={list} className="grid gap-2" data-testid="lines">
        {lines.map((line, index) => (
          <li
            key={line.id}
            className={`flex flex-wrap items-end gap-2 border-l-4 pl-3 py-1 ${faulty === index ? "border-error" : "border-base-300"}`}
          >
            <span className="identifier self-center w-10 text-right" aria-label={`Line ${numbered[index]}`}>
              {numbered[index]}
            </span>
            <div className="flex-1 min-w-56 grid gap-2 sm:grid-cols-[2fr_1fr_1fr]">
              <FieldInputs
                rules={kind.lines}
                values={line.fields}
                onChange={(fields) => onChange(lines.map((each) => (each.id === line.id ? { ...each, fields } : each)))}
                small
              />
            </div>
            <span className="flex gap-1">
              {!fixed && (
                <>
                  <button
                    type="button"
                    className="btn btn-sm"
                    aria-label={`Move line ${numbered[index]} up`}
                    disabled={index === 0}
                    onClick={() => move(index, -1)}
                  >
                    ↑
                  </button>
                  <button
                    type="button"
                    className="btn btn-sm"
                    aria-label={`Move line ${numbered[index]} down`}
                    disabled={index === lines.length - 1}
                    onClick={() => move(index, 1)}
                  >
                    ↓
                  </button>
                </>
              )}
              <button
                type="button"
                className="btn btn-sm"
                aria-label={`Remove line ${numbered[index]}`}
                onClick={() => onChange(lines.filter((each) => each.id !== line.id))}
              >
                Remove
              </button>
            </span>
            {faulty === index && remark && <p className="basis-full text-sm text-error">{remark}</p>}
          </li>
        ))}
      </ol>
      {lines.length === 0 && <p className="quiet text-sm">No lines yet.</p>}
      <button
        type="button"
        className="btn btn-sm justify-self-start"
        onClick={add}
        disabled={lines.length > 0 && Object.keys(given(lines.at(-1)!.fields)).length === 0}
      >
        Add a line
      </button>
    </fieldset>
  );
}
