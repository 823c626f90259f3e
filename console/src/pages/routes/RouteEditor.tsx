import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { put, remove, type CellView, type KindView, type RouteForm, type RouteView } from "../../api/client.ts";
import { useSeriesList } from "../../api/queries.ts";
import { Trouble } from "../../parts/States.tsx";

const path = (route: { kind: string; unit: string }) =>
  `/routes/${encodeURIComponent(route.kind)}/${encodeURIComponent(route.unit)}`;

/** The rules of one cell of the grid: those it has, and another. It is in the cell itself. */
export function RouteEditor({ kind, cell, onDone }: { kind: KindView; cell: CellView; onDone: () => void }) {
  const own = cell.routes.filter((route) => route.unit === cell.unit);
  const series = useSeriesList();
  const queries = useQueryClient();
  const texts = kind.fields.filter((field) => field.type === "text").map((field) => field.name);
  const usual = own[0]?.into ?? cell.routes[0]?.into ?? (texts.includes("number") ? "number" : (texts[0] ?? ""));
  const [chosen, setChosen] = useState("");
  const [into, setInto] = useState(usual);
  const [field, setField] = useState("");
  const [values, setValues] = useState("");
  const same = own.find((route) => (field === "" ? !route.condition : route.condition === `${field}=${values}`));
  const settled = { onSettled: () => void queries.invalidateQueries({ queryKey: ["routes"] }) };
  const add = useMutation({
    mutationFn: () =>
      put<RouteView>(
        path({ kind: cell.kind, unit: cell.unit }),
        { series: chosen, into, ...(field ? { when: { [field]: test(values) } } : {}) } satisfies RouteForm,
        same?.version,
      ),
    onSuccess: onDone,
    ...settled,
  });
  const away = useMutation({
    mutationFn: (route: RouteView) =>
      remove(
        `${path(route)}${route.condition ? `?condition=${encodeURIComponent(route.condition)}` : ""}`,
        route.version,
      ),
    ...settled,
  });
  return (
    <form
      className="grid gap-2 min-w-52"
      aria-label={`${cell.kind} in ${cell.unit}`}
      onSubmit={(event) => {
        event.preventDefault();
        if (!add.isPending) add.mutate();
      }}
      onKeyDown={(event) => {
        if (event.key === "Escape") onDone();
      }}
    >
      {own.map((route) => (
        <div key={route.route} className="flex items-start gap-2 text-sm">
          <span>
            <span className="identifier">{route.series}</span>
            {route.condition && <span className="block text-xs">when {route.condition}</span>}
          </span>
          <button
            type="button"
            className="btn btn-xs ml-auto"
            aria-label={`Remove ${route.route}`}
            onClick={() => away.mutate(route)}
          >
            Remove
          </button>
        </div>
      ))}
      <label className="grid gap-0.5 text-xs">
        Series
        <select
          className="select select-sm"
          value={chosen}
          autoFocus
          onChange={(event) => setChosen(event.target.value)}
        >
          <option value="">choose</option>
          {series.data?.map((each) => (
            <option key={each.key} value={each.key}>
              {each.key}
            </option>
          ))}
        </select>
      </label>
      {texts.length > 1 && (
        <label className="grid gap-0.5 text-xs">
          into the field
          <select className="select select-sm" value={into} onChange={(event) => setInto(event.target.value)}>
            {texts.map((name) => (
              <option key={name} value={name}>
                {name}
              </option>
            ))}
          </select>
        </label>
      )}
      <label className="grid gap-0.5 text-xs">
        only when
        <select className="select select-sm" value={field} onChange={(event) => setField(event.target.value)}>
          <option value="">always</option>
          {kind.fields
            .filter((each) => each.name !== into)
            .map((each) => (
              <option key={each.name} value={each.name}>
                {each.name}
              </option>
            ))}
        </select>
      </label>
      {field && (
        <label className="grid gap-0.5 text-xs">
          is <span className="quiet">(values separated by |, or from..to)</span>
          <input
            className="input input-sm"
            value={values}
            placeholder="school"
            autoComplete="off"
            onChange={(event) => setValues(event.target.value)}
          />
        </label>
      )}
      <div className="flex gap-2">
        <button type="submit" className="btn btn-sm btn-primary" aria-busy={add.isPending}>
          {same ? "Change" : "Save"}
        </button>
        <button type="button" className="btn btn-sm btn-ghost" onClick={onDone}>
          Cancel
        </button>
      </div>
      <div aria-live="polite" className="whitespace-normal max-w-64">
        {add.isError && <Trouble error={add.error} />}
        {away.isError && <Trouble error={away.error} />}
      </div>
    </form>
  );
}

/** What was typed for a field: values, or a stretch of them. */
function test(values: string) {
  const dots = values.indexOf("..");
  if (dots < 0) return { oneOf: values.split("|").map((value) => value.trim()) };
  const [from, to] = [values.slice(0, dots).trim(), values.slice(dots + 2).trim()];
  return { ...(from ? { from } : {}), ...(to ? { to } : {}) };
}
