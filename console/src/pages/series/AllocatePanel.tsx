import { useRef, useState } from "react";
import type { Allocation, SeriesView } from "../../api/client.ts";
import { useAct } from "../../api/useAct.ts";
import { Trouble } from "../../parts/States.tsx";
import { count, when } from "../../parts/words.ts";

type Way = "take" | "hold" | "typed";

/** Allocates numbers, confirms them, and is ready for the next. */
export function AllocatePanel({
  series,
  date,
  onDate,
  fields,
  children,
}: {
  series: SeriesView;
  date: string;
  onDate: (date: string) => void;
  fields: Record<string, string>;
  children?: React.ReactNode;
}) {
  const [way, setWay] = useState<Way>(series.policy.typed === "required" ? "typed" : "take");
  const [quantity, setQuantity] = useState("1");
  const [reference, setReference] = useState("");
  const [hold, setHold] = useState("PT15M");
  const [typed, setTyped] = useState("");
  const referenceField = useRef<HTMLInputElement>(null);
  const take = useAct<Allocation>(() => {
    setReference("");
    setQuantity("1");
    setTyped("");
    referenceField.current?.focus();
  });

  const body = () => ({
    quantity: way === "typed" ? 1 : Number(quantity),
    ...(way === "hold" ? { hold } : {}),
    ...(way === "typed" ? { typed: typed.trim() } : {}),
    ...(date ? { date } : {}),
    ...(series.fields.length > 0 ? { fields } : {}),
    ...(reference.trim() ? { reference: reference.trim() } : {}),
  });

  const submit = (event: React.FormEvent) => {
    event.preventDefault();
    if (take.isPending) return;
    take.mutate({ path: `/series/${encodeURIComponent(series.key)}/allocations`, body: body() });
  };

  return (
    <form className="sheet" aria-labelledby="take" onSubmit={submit}>
      <h2 id="take" className="sheet-title">
        Allocate
      </h2>
      <div className="p-4 grid gap-3">
        {children}
        <label className="grid gap-1">
          <span className="text-sm">How</span>
          <select className="select w-full" value={way} onChange={(event) => setWay(event.target.value as Way)}>
            {series.policy.typed !== "required" && (
              <>
                <option value="take">issue immediately</option>
                <option value="hold">hold until confirmed</option>
              </>
            )}
            {series.policy.typed !== "refused" && <option value="typed">typed number</option>}
          </select>
        </label>
        {way === "hold" && (
          <label className="grid gap-1">
            <span className="text-sm">Hold for</span>
            <select className="select w-full" value={hold} onChange={(event) => setHold(event.target.value)}>
              {[
                ["PT15M", "15 minutes"],
                ["PT1H", "1 hour"],
                ["PT8H", "8 hours"],
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
        )}
        {way === "typed" && (
          <label className="grid gap-1">
            <span className="text-sm">Number</span>
            <input
              className="input w-full identifier"
              required
              value={typed}
              onChange={(event) => setTyped(event.target.value)}
              placeholder={series.next[0] ? `like ${series.next[0]}` : ""}
              autoComplete="off"
            />
          </label>
        )}
        <label className="grid gap-1">
          <span className="text-sm">
            Reference <span className="quiet">(optional)</span>
          </span>
          <input
            ref={referenceField}
            className="input w-full"
            value={reference}
            onChange={(event) => setReference(event.target.value)}
            placeholder="e.g. ORDER-890"
            autoComplete="off"
          />
        </label>
        <div className="grid grid-cols-[5rem_1fr] gap-3">
          <label className="grid gap-1">
            <span className="text-sm">Quantity</span>
            <input
              className="input w-full"
              type="number"
              step="1"
              required
              disabled={way === "typed"}
              value={way === "typed" ? "1" : quantity}
              onChange={(event) => setQuantity(event.target.value)}
            />
          </label>
          <label className="grid gap-1">
            <span className="text-sm">
              Date <span className="quiet">(default: today)</span>
            </span>
            <input className="input w-full" type="date" value={date} onChange={(event) => onDate(event.target.value)} />
          </label>
        </div>
        <button type="submit" className="btn btn-primary" aria-busy={take.isPending}>
          {way === "typed"
            ? "Allocate this number"
            : `${way === "hold" ? "Hold" : "Allocate"} ${Number(quantity) > 1 ? `${count(Number(quantity))} numbers` : "the next number"}`}
        </button>
        <div aria-live="polite">
          {take.isError && <Trouble error={take.error} />}
          {take.isSuccess && <Taken allocation={take.data} />}
        </div>
      </div>
    </form>
  );
}

function Taken({ allocation }: { allocation: Allocation }) {
  return (
    <div className="border-l-4 border-success bg-base-200 px-4 py-3" data-testid="taken">
      <p className="text-sm">
        {allocation.repeated
          ? "Allocated before, by the same request"
          : allocation.until
            ? `Held until ${when(allocation.until)}`
            : "Allocated"}
        {allocation.reference ? ` for ${allocation.reference}` : ""}, entry {allocation.seq}
      </p>
      <p className="identifier text-xl font-semibold">
        {allocation.first}
        {allocation.last !== allocation.first && (
          <>
            {" "}
            <span className="font-normal text-base">to</span> {allocation.last}
          </>
        )}
      </p>
    </div>
  );
}
