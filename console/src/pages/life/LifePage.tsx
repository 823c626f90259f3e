import { useState } from "react";
import { Link } from "react-router";
import type { BlockView, HoldView, Settlement } from "../../api/client.ts";
import { useBlocks, useHolds, useVoids } from "../../api/queries.ts";
import { useAct } from "../../api/useAct.ts";
import { Scroller } from "../../parts/Scroller.tsx";
import { Settled } from "../../parts/Settled.tsx";
import { Nothing, Trouble, Waiting } from "../../parts/States.tsx";
import { count, span, when } from "../../parts/words.ts";
import { Doubts } from "./Doubts.tsx";

/** An ISO 8601 duration to the largest two units. */
const age = (duration: string): string => {
  const [, hours, minutes] = /^PT(?:(\d+)H)?(?:(\d+)M)?/.exec(duration) ?? [];
  const h = Number(hours ?? 0);
  return h >= 24 ? `${Math.floor(h / 24)} d ${h % 24} h` : h > 0 ? `${h} h ${minutes ?? 0} min` : `${minutes ?? 0} min`;
};

function Holds() {
  const holds = useHolds();
  const act = useAct<Settlement>();
  const settle = (hold: HoldView, path: string) =>
    act.mutate({
      path: `/series/${encodeURIComponent(hold.series)}/${path}`,
      body: { identifiers: [hold.identifier] },
    });
  return (
    <section className="sheet" aria-labelledby="holds">
      <h2 id="holds" className="sheet-title">
        Held
      </h2>
      {holds.isPending && <Waiting />}
      {holds.isError && <Trouble error={holds.error} />}
      {holds.data?.length === 0 && <Nothing>No numbers are held.</Nothing>}
      {holds.data && holds.data.length > 0 && (
        <Scroller label="Held numbers">
          <table className="table table-sm">
            <thead>
              <tr>
                <th>Number</th>
                <th>Series</th>
                <th>Age</th>
                <th>Until</th>
                <th>For</th>
                <th>By</th>
                <th>
                  <span className="sr-only">Act</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {holds.data.map((hold) => (
                <tr key={`${hold.series} ${hold.identifier}`}>
                  <td className="identifier">{hold.identifier}</td>
                  <td>
                    <Link className="link" to={`/series/${hold.series}`}>
                      {hold.series}
                    </Link>
                  </td>
                  <td className="whitespace-nowrap">{age(hold.age)}</td>
                  <td className="whitespace-nowrap">{when(hold.until)}</td>
                  <td>{hold.reference ?? "—"}</td>
                  <td>{hold.by}</td>
                  <td className="whitespace-nowrap text-right">
                    <button
                      type="button"
                      className="btn btn-xs"
                      disabled={act.isPending}
                      aria-label={`Confirm ${hold.identifier}`}
                      onClick={() => settle(hold, "confirmations")}
                    >
                      Confirm
                    </button>{" "}
                    <button
                      type="button"
                      className="btn btn-xs"
                      disabled={act.isPending}
                      aria-label={`Release ${hold.identifier}`}
                      onClick={() => settle(hold, "releases")}
                    >
                      Release
                    </button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </Scroller>
      )}
      <div aria-live="polite" className={act.isIdle || act.isPending ? "" : "p-3"}>
        {act.isError && <Trouble error={act.error} />}
        {act.isSuccess && <Settled settlement={act.data} />}
      </div>
    </section>
  );
}

/** Ends holds that nobody has ended. */
function Clearing() {
  const [olderThan, setOlderThan] = useState("P1D");
  const [reason, setReason] = useState("");
  const clear = useAct<Settlement[]>(() => setReason(""));
  return (
    <form
      className="sheet"
      aria-labelledby="clearing"
      onSubmit={(event) => {
        event.preventDefault();
        clear.mutate({ path: "/holds/clearings", body: { olderThan, reason } });
      }}
    >
      <h2 id="clearing" className="sheet-title">
        Clear old holds
      </h2>
      <div className="p-4 grid gap-3">
        <label className="grid gap-1">
          <span className="text-sm">Held for longer than</span>
          <select className="select w-full" value={olderThan} onChange={(event) => setOlderThan(event.target.value)}>
            {[
              ["PT1H", "1 hour"],
              ["P1D", "1 day"],
              ["P7D", "7 days"],
              ["P30D", "30 days"],
            ].map(([value, name]) => (
              <option key={value} value={value}>
                {name}
              </option>
            ))}
          </select>
        </label>
        <label className="grid gap-1">
          <span className="text-sm">Reason</span>
          <input
            className="input w-full"
            required
            value={reason}
            onChange={(event) => setReason(event.target.value)}
            autoComplete="off"
          />
        </label>
        <button type="submit" className="btn" aria-busy={clear.isPending}>
          Release them
        </button>
        <div aria-live="polite">
          {clear.isError && <Trouble error={clear.error} />}
          {clear.isSuccess &&
            (clear.data.length === 0 ? (
              <p className="quiet">No numbers have been held that long.</p>
            ) : (
              clear.data.map((each) => <Settled key={each.seq} settlement={each} />)
            ))}
        </div>
      </div>
    </form>
  );
}

function Blocks() {
  const blocks = useBlocks();
  const act = useAct<Settlement>();
  const back = (block: BlockView) =>
    act.mutate({
      path: `/series/${encodeURIComponent(block.series)}/returns`,
      body: { entry: block.block, reason: "The rest is not used" },
    });
  return (
    <section className="sheet" aria-labelledby="blocks">
      <h2 id="blocks" className="sheet-title">
        Blocks
      </h2>
      {blocks.isPending && <Waiting />}
      {blocks.isError && <Trouble error={blocks.error} />}
      {blocks.data?.length === 0 && <Nothing>No blocks.</Nothing>}
      {blocks.data && blocks.data.length > 0 && (
        <Scroller label="Blocks">
          <table className="table table-sm">
            <thead>
              <tr>
                <th className="text-right">Block</th>
                <th>Series</th>
                <th>Holder</th>
                <th>Numbers</th>
                <th className="text-right">Quantity</th>
                <th className="text-right">Left</th>
                <th className="text-right">Used</th>
                <th className="text-right">Returned</th>
                <th>
                  <span className="sr-only">Act</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {blocks.data.map((block) => (
                <tr key={block.block}>
                  <td className="text-right tabular-nums">{block.block}</td>
                  <td>
                    <Link className="link" to={`/series/${block.series}`}>
                      {block.series}
                    </Link>
                  </td>
                  <td>
                    {block.holder ?? "—"}
                    {block.parent !== undefined && <span className="quiet"> (part of {block.parent})</span>}
                  </td>
                  <td className="identifier">{span(block.first, block.last)}</td>
                  <td className="text-right tabular-nums">{count(block.quantity)}</td>
                  <td className="text-right tabular-nums font-semibold">{count(block.left)}</td>
                  <td className="text-right tabular-nums">{count(block.states["used"] ?? 0)}</td>
                  <td className="text-right tabular-nums">{count(block.states["returned"] ?? 0)}</td>
                  <td className="text-right">
                    {block.left > 0 && (
                      <button
                        type="button"
                        className="btn btn-xs whitespace-nowrap"
                        disabled={act.isPending}
                        aria-label={`Return the rest of block ${block.block}`}
                        onClick={() => back(block)}
                      >
                        Return the rest
                      </button>
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </Scroller>
      )}
      <div aria-live="polite" className={act.isIdle || act.isPending ? "" : "p-3"}>
        {act.isError && <Trouble error={act.error} />}
        {act.isSuccess && <Settled settlement={act.data} />}
      </div>
      <Handing blocks={blocks.data ?? []} />
    </section>
  );
}

/** Takes a block, or hands on a part of one. */
function Handing({ blocks }: { blocks: BlockView[] }) {
  const [from, setFrom] = useState("");
  const [quantity, setQuantity] = useState("");
  const [holder, setHolder] = useState("");
  const act = useAct<{ seq: number; first?: string; last?: string }>(() => setQuantity(""));
  const submit = (event: React.FormEvent) => {
    event.preventDefault();
    const body = { quantity: Number(quantity), ...(holder.trim() ? { holder: holder.trim() } : {}) };
    act.mutate({
      path: /^\d+$/.test(from.trim())
        ? `/blocks/${from.trim()}/parts`
        : `/series/${encodeURIComponent(from.trim())}/blocks`,
      body,
    });
  };
  return (
    <form
      className="p-4 border-t border-base-300 flex flex-wrap gap-3 items-end"
      aria-label="Allocate a block, or split one"
      onSubmit={submit}
    >
      <label className="grid gap-1">
        <span className="text-sm">Series, or number of a block</span>
        <input
          className="input w-52"
          required
          list="of-block"
          value={from}
          onChange={(event) => setFrom(event.target.value)}
          autoComplete="off"
        />
        <datalist id="of-block">
          {blocks.map((block) => (
            <option key={block.block} value={block.block}>
              {block.series}
            </option>
          ))}
        </datalist>
      </label>
      <label className="grid gap-1">
        <span className="text-sm">Quantity</span>
        <input
          className="input w-28"
          type="number"
          required
          value={quantity}
          onChange={(event) => setQuantity(event.target.value)}
        />
      </label>
      <label className="grid gap-1">
        <span className="text-sm">Holder</span>
        <input
          className="input w-52"
          value={holder}
          onChange={(event) => setHolder(event.target.value)}
          autoComplete="off"
        />
      </label>
      <button type="submit" className="btn" aria-busy={act.isPending}>
        Allocate a block
      </button>
      <div aria-live="polite" className="basis-full">
        {act.isError && <Trouble error={act.error} />}
        {act.isSuccess && (
          <p className="border-l-4 border-success bg-base-200 px-4 py-2">
            Block {act.data.seq}: <span className="identifier">{span(act.data.first, act.data.last)}</span>
          </p>
        )}
      </div>
    </form>
  );
}

function Voids() {
  const voids = useVoids();
  return (
    <section className="sheet" aria-labelledby="voids">
      <h2 id="voids" className="sheet-title">
        Void
      </h2>
      {voids.isPending && <Waiting />}
      {voids.isError && <Trouble error={voids.error} />}
      {voids.data?.length === 0 && <Nothing>No issued number is void.</Nothing>}
      {voids.data && voids.data.length > 0 && (
        <Scroller label="Void numbers">
          <table className="table table-sm">
            <thead>
              <tr>
                <th>Numbers</th>
                <th>Series</th>
                <th>Kind</th>
                <th>Reason</th>
                <th>By</th>
                <th>When</th>
                <th className="text-right">Entry</th>
              </tr>
            </thead>
            <tbody>
              {voids.data.map((each) => (
                <tr key={`${each.seq} ${each.first}`}>
                  <td className="identifier">
                    {span(each.first, each.last)}
                    {each.quantity > 1 && <span className="quiet"> ({count(each.quantity)})</span>}
                  </td>
                  <td>
                    <Link className="link" to={`/series/${each.series}`}>
                      {each.series}
                    </Link>
                  </td>
                  <td>{each.kind}</td>
                  <td>{each.reason ?? "—"}</td>
                  <td>{each.by}</td>
                  <td className="whitespace-nowrap">{when(each.at)}</td>
                  <td className="text-right tabular-nums">{each.seq}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </Scroller>
      )}
    </section>
  );
}

/** What is under way, and what ended. */
export function LifePage() {
  return (
    <>
      <h1 className="text-2xl font-semibold mb-5">Held, blocks, void</h1>
      <div className="sheets">
        <div className="sheets lg:grid-cols-[minmax(0,1fr)_18rem] items-start">
          <Holds />
          <Clearing />
        </div>
        <Doubts />
        <Blocks />
        <Voids />
      </div>
    </>
  );
}
