import { useState } from "react";
import { Link } from "react-router";
import type { CellView, KindView, RouteView } from "../../api/client.ts";
import { useRouteGrid } from "../../api/queries.ts";
import { Scroller } from "../../parts/Scroller.tsx";
import { useSession } from "../../parts/Session.tsx";
import { Nothing, Trouble, Waiting } from "../../parts/States.tsx";
import { RouteEditor } from "./RouteEditor.tsx";

/** Kinds by units: which series is used, by its own or an inherited route, and the missing routes. */
export function RouteGrid() {
  const grid = useRouteGrid();
  const [open, setOpen] = useState("");
  if (grid.isPending) return <Waiting />;
  if (grid.isLoadingError) return <Trouble error={grid.error} />;
  const { kinds, units, cells } = grid.data;
  const gaps = cells.filter((cell) => cell.gap).length;
  return (
    <>
      <h1 className="text-2xl font-semibold mb-1">Kinds and routes</h1>
      <p className="quiet mb-5">
        The routes: which series is used for records of a kind in a unit. A unit without a route of its own uses that of
        the unit above it.
        {gaps > 0 && (
          <>
            {" "}
            <strong className="text-error">{gaps === 1 ? "One missing route" : `${gaps} missing routes`}</strong>: a
            record there finds no series.
          </>
        )}
      </p>
      <section className="sheet" aria-label="Kinds by units">
        {kinds.length === 0 || units.length === 0 ? (
          <Nothing>
            {kinds.length === 0 ? "No kinds of records" : "No units"} are defined yet. Define them in definition files,
            under <span className="identifier">{kinds.length === 0 ? "kinds:" : "units:"}</span>, which are applied with{" "}
            <span className="identifier">youngtally apply</span>.
          </Nothing>
        ) : (
          <Scroller label="Kinds by units">
            <table className="table table-sm [&_td]:align-top [&_tbody_th]:align-top">
              <thead>
                <tr>
                  <th scope="col">Kind</th>
                  {units.map((unit) => (
                    <th key={unit.key} scope="col">
                      {unit.title}
                      <div className="font-normal">{unit.below ? `below ${unit.below}` : "at the top"}</div>
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {kinds.map((kind) => (
                  <tr key={kind.key}>
                    <th scope="row" className="font-medium">
                      {kind.title}
                      <div className="quiet text-xs font-normal">
                        {kind.fields.map((field) => field.name).join(", ")}
                        {kind.lines.length > 0 && "; with lines"}
                      </div>
                    </th>
                    {units.map((unit) => {
                      const cell = cells.find((each) => each.kind === kind.key && each.unit === unit.key)!;
                      const place = `${kind.key} ${unit.key}`;
                      return (
                        <td key={unit.key} className={cell.gap ? "bg-error/10" : ""}>
                          {open === place ? (
                            <RouteEditor kind={kind} cell={cell} onDone={() => setOpen("")} />
                          ) : (
                            <Cell kind={kind} cell={cell} onOpen={() => setOpen(place)} />
                          )}
                        </td>
                      );
                    })}
                  </tr>
                ))}
              </tbody>
            </table>
          </Scroller>
        )}
      </section>
    </>
  );
}

function Rule({ route, here }: { route: RouteView; here: string }) {
  return (
    <div>
      <Link className="link identifier" to={`/series/${route.series}`}>
        {route.series}
      </Link>
      {route.condition && (
        <div className="text-xs">
          when <span className="identifier">{route.condition}</span>
        </div>
      )}
      <div className="quiet text-xs">{route.unit === here ? "its own" : `from ${route.unit}`}</div>
    </div>
  );
}

function Cell({ kind, cell, onOpen }: { kind: KindView; cell: CellView; onOpen: () => void }) {
  const { may } = useSession();
  const own = cell.routes.some((route) => route.unit === cell.unit);
  return (
    <div className="grid gap-1 justify-items-start min-w-28">
      {cell.routes.map((route) => (
        <Rule key={route.route} route={route} here={cell.unit} />
      ))}
      {cell.hidden && <p className="quiet text-xs">a series that you may not see</p>}
      {cell.gap && (
        <p className="text-error font-medium text-sm">{cell.routes.length > 0 ? "otherwise no series" : "no series"}</p>
      )}
      {may("define") && (
        <button
          type="button"
          className={cell.gap ? "btn btn-xs btn-primary" : "btn btn-xs"}
          aria-label={`${cell.gap ? "Add a route" : "Change"}: ${kind.key} in ${cell.unit}`}
          onClick={onOpen}
        >
          {cell.gap ? "Add a route" : own ? "Change" : "Override"}
        </button>
      )}
    </div>
  );
}
