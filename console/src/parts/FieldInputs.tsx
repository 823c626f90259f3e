import type { Choice } from "../api/client.ts";
import { useCodebooks, useUnits } from "../api/queries.ts";
import { Trouble } from "./States.tsx";

/** What is asked for: a choice of a codebook, one within another field's choice, or a text; of a record also a number, a date, or yes or no. */
export type Rule = {
  name?: string;
  title?: string;
  type?: string;
  codebook?: string;
  units?: boolean;
  within?: string;
  takes?: string;
  required?: boolean;
};

/** Whether every field has been given something. */
export const isComplete = (rules: Rule[], values: Record<string, string>): boolean =>
  rules.every((rule) => (values[rule.name ?? ""] ?? "").trim() !== "");

/** The fields of the record, each narrowed by the one that it stands within. */
/** @param remarks what is wrong with a field, by its name @param prefix of the places of its inputs in the page */
export function FieldInputs({
  rules,
  values,
  onChange,
  small,
  remarks = {},
  prefix,
}: {
  rules: Rule[];
  values: Record<string, string>;
  onChange: (values: Record<string, string>) => void;
  small?: boolean;
  remarks?: Record<string, string>;
  prefix?: string;
}) {
  const books = useCodebooks();
  const units = useUnits();
  if (rules.length === 0) return null;
  const choices = (rule: Rule): Choice[] => {
    if (rule.units)
      return (units.data ?? []).map((unit) => ({
        name: unit.title,
        code: unit.code,
        retired: unit.retired,
        choices: [],
      }));
    if (rule.codebook) return books.data?.find((book) => book.key === rule.codebook)?.choices ?? [];
    const above = rules.find((each) => each.name === rule.within);
    return above ? (choices(above).find((choice) => choice.code === values[above.name ?? ""])?.choices ?? []) : [];
  };
  /** Another choice above leaves no choice below. */
  const beneath = (name: string): string[] =>
    rules.filter((rule) => rule.within === name).flatMap((rule) => [rule.name ?? "", ...beneath(rule.name ?? "")]);
  const change = (name: string, value: string) => {
    const next = { ...values, [name]: value };
    for (const below of beneath(name)) delete next[below];
    onChange(next);
  };
  const described = (name: string) => ({
    ...(prefix ? { id: prefix + name } : {}),
    ...(remarks[name] ? { "aria-invalid": true, "aria-describedby": `${prefix ?? ""}${name}-remark` } : {}),
  });
  return (
    <>
      {books.isLoadingError && (
        <div className="col-span-full">
          <Trouble error={books.error} />
        </div>
      )}
      {rules.map((rule) => {
        const name = rule.name ?? "";
        const offered =
          rule.units || rule.codebook !== undefined || rule.within !== undefined
            ? choices(rule).filter((choice) => !choice.retired)
            : undefined;
        return (
          <label key={name} className="grid gap-1 content-start">
            <span className="text-sm">
              {rule.title ?? name}
              {rule.required && <span aria-hidden="true"> *</span>}{" "}
              {rule.takes && <span className="quiet">({rule.takes})</span>}
            </span>
            {offered ? (
              <select
                className={`select w-full ${small ? "select-sm" : ""}`}
                {...described(name)}
                value={values[name] ?? ""}
                disabled={offered.length === 0}
                onChange={(event) => change(name, event.target.value)}
              >
                <option value="">
                  {offered.length === 0 && rule.within ? `choose ${rule.within} first` : "choose"}
                </option>
                {offered.map((choice) => (
                  <option key={choice.code} value={choice.code}>
                    {choice.name} ({choice.code})
                  </option>
                ))}
              </select>
            ) : rule.type === "yes-no" ? (
              <select
                className={`select w-full ${small ? "select-sm" : ""}`}
                {...described(name)}
                value={values[name] ?? ""}
                onChange={(event) => change(name, event.target.value)}
              >
                <option value="">not set</option>
                <option value="yes">yes</option>
                <option value="no">no</option>
              </select>
            ) : (
              <input
                className={`input w-full ${small ? "input-sm" : ""}`}
                {...described(name)}
                type={rule.type === "date" ? "date" : "text"}
                inputMode={rule.type === "number" ? "decimal" : undefined}
                value={values[name] ?? ""}
                autoComplete="off"
                onChange={(event) => change(name, event.target.value)}
              />
            )}
            {remarks[name] && (
              <span id={`${prefix ?? ""}${name}-remark`} className="text-sm text-error">
                {remarks[name]}
              </span>
            )}
          </label>
        );
      })}
    </>
  );
}
