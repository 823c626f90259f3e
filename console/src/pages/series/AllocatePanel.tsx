import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { post, Problem, type Allocation, type SeriesView } from "../../api/client.ts";
import { Trouble } from "../../parts/States.tsx";
import { count } from "../../parts/words.ts";

type Request = { quantity: number; date?: string; fields?: Record<string, string>; reference?: string };

/** Takes numbers, confirms what was taken, and stands ready for the next. */
export function AllocatePanel({ series, date, onDate, fields, children }: { series: SeriesView; date: string; onDate: (date: string) => void; fields: Record<string, string>; children?: React.ReactNode }) {
  const queries = useQueryClient();
  const [quantity, setQuantity] = useState("1");
  const [reference, setReference] = useState("");
  const referenceField = useRef<HTMLInputElement>(null);
  // One key a request: pressing again after an unknown outcome repeats it instead of taking more.
  const pending = useRef<{ asked: string; key: string } | undefined>(undefined);

  const take = useMutation({
    mutationFn: (request: Request) => {
      const asked = JSON.stringify([series.key, request]);
      if (pending.current?.asked !== asked) pending.current = { asked, key: crypto.randomUUID() };
      return post<Allocation>(`/series/${encodeURIComponent(series.key)}/allocations`, request, pending.current.key);
    },
    onSuccess: () => {
      pending.current = undefined;
      setReference("");
      setQuantity("1");
      referenceField.current?.focus();
    },
    onError: (error) => {
      if (!(error instanceof Problem) || (error.status !== 0 && error.status < 500)) pending.current = undefined;
    },
    onSettled: () => {
      void queries.invalidateQueries({ queryKey: ["series"] });
      void queries.invalidateQueries({ queryKey: ["entries"] });
    },
  });

  const submit = (event: React.FormEvent) => {
    event.preventDefault();
    if (take.isPending) return;
    take.mutate({ quantity: Number(quantity), ...(date ? { date } : {}), ...(series.fields.length > 0 ? { fields } : {}), ...(reference.trim() ? { reference: reference.trim() } : {}) });
  };

  return (
    <form className="sheet" aria-labelledby="take" onSubmit={submit}>
      <h2 id="take" className="sheet-title">Take numbers</h2>
      <div className="p-4 grid gap-3">
        {children}
        <label className="grid gap-1"><span className="text-sm">What for <span className="quiet">(reference)</span></span>
          <input ref={referenceField} className="input w-full" value={reference} onChange={(event) => setReference(event.target.value)} placeholder="e.g. ORDER-890" autoComplete="off" /></label>
        <div className="grid grid-cols-[5rem_1fr] gap-3">
          <label className="grid gap-1"><span className="text-sm">Quantity</span><input className="input w-full" type="number" step="1" required value={quantity} onChange={(event) => setQuantity(event.target.value)} /></label>
          <label className="grid gap-1"><span className="text-sm">Date <span className="quiet">(else today)</span></span><input className="input w-full" type="date" value={date} onChange={(event) => onDate(event.target.value)} /></label>
        </div>
        <button type="submit" className="btn btn-primary" aria-busy={take.isPending}>{Number(quantity) > 1 ? `Take ${count(Number(quantity))} numbers` : "Take the next number"}</button>
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
      <p className="text-sm">{allocation.repeated ? "Taken before, for the same request" : "Taken"}{allocation.reference ? ` for ${allocation.reference}` : ""}, entry {allocation.seq}</p>
      <p className="identifier text-xl font-semibold">{allocation.first}{allocation.last !== allocation.first && <> <span className="font-normal text-base">to</span> {allocation.last}</>}</p>
    </div>
  );
}
