import { useRef } from "react";
import type { Fault } from "../../api/client.ts";
import { Field } from "./Field.tsx";

/** The parts a pattern is built from: what is put in, and what it is. */
const parts = [
  { text: "{count 5}", name: "Count" },
  { text: "{count 4 safe}", name: "Letters and digits" },
  { text: "{date yy}", name: "Year" },
  { text: "{date MM}", name: "Month" },
  { text: "{date MMM}", name: "Month name" },
  { text: "{date YY-ww}", name: "Week" },
  { text: "{fiscal yy}", name: "Fiscal year" },
  { text: "{field group}", name: "Field" },
  { text: "{unit}", name: "Unit" },
  { text: "{check mod37-36}", name: "Check symbol" },
];

/** A pattern can be typed, or put together from parts at the place of the cursor. */
export function PatternField({
  value,
  faults,
  onChange,
}: {
  value: string;
  faults: Fault[];
  onChange: (value: string) => void;
}) {
  const field = useRef<HTMLInputElement>(null);
  const put = (text: string) => {
    const from = field.current?.selectionStart ?? value.length;
    const to = field.current?.selectionEnd ?? value.length;
    onChange(value.slice(0, from) + text + value.slice(to));
    requestAnimationFrame(() => {
      field.current?.focus();
      field.current?.setSelectionRange(from + text.length, from + text.length);
    });
  };
  return (
    <div className="grid gap-2">
      <Field id="pattern" label="Pattern" hint="— text, and fields in braces" faults={faults}>
        <input
          id="pattern"
          ref={field}
          className={`input w-full font-mono ${faults.length > 0 ? "input-error" : ""}`}
          aria-invalid={faults.length > 0}
          aria-describedby="pattern-faults"
          placeholder="LW{date yy}-{count 5}"
          value={value}
          autoComplete="off"
          spellCheck={false}
          onChange={(event) => onChange(event.target.value)}
        />
      </Field>
      <div className="flex flex-wrap gap-1.5" role="group" aria-label="Insert a part into the pattern">
        {parts.map((part) => (
          <button key={part.text} type="button" className="btn btn-xs" title={part.text} onClick={() => put(part.text)}>
            + {part.name}
          </button>
        ))}
      </div>
    </div>
  );
}
