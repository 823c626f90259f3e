import { useState } from "react";
import type { KindView, RecordAnswer, RecordView } from "../../api/client.ts";
import { inUse, useUnits } from "../../api/queries.ts";
import { useAct } from "../../api/useAct.ts";
import { FieldInputs } from "../../parts/FieldInputs.tsx";
import { Trouble } from "../../parts/States.tsx";
import { asked, given, home, unitTitle, type Values } from "./record.ts";

/** Takes the record over into another unit, with the same number. */
export function SharePanel({ record, kind }: { record: RecordView; kind: KindView }) {
  const units = useUnits();
  const [unit, setUnit] = useState("");
  const [values, setValues] = useState<Values>({});
  const share = useAct<RecordAnswer>(() => {
    setUnit("");
    setValues({});
  });
  const others = inUse(units.data).filter((each) => !record.units.some((own) => own.unit === each.key));
  return (
    <section className="sheet" aria-labelledby="share">
      <h2 id="share" className="sheet-title">
        Share with another unit
      </h2>
      <form
        className="p-4 grid gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (unit && !share.isPending)
            share.mutate({ path: `/records/${record.record}/units`, body: { unit, fields: given(values) } });
        }}
      >
        <p className="text-sm quiet">
          Units: {record.units.map((each) => unitTitle(units.data, each.unit)).join(", ")}. The record keeps its number
          in all units.
        </p>
        <label className="grid gap-1">
          <span className="text-sm">Share with</span>
          <select className="select w-full" value={unit} onChange={(event) => setUnit(event.target.value)}>
            <option value="">choose</option>
            {others.map((each) => (
              <option key={each.key} value={each.key}>
                {each.title}
              </option>
            ))}
          </select>
        </label>
        {unit && (
          <>
            <p className="text-sm quiet">Empty fields are as in {unitTitle(units.data, home(record).unit)}.</p>
            <div className="grid gap-3 sm:grid-cols-2">
              <FieldInputs
                rules={asked(kind).map((rule) => ({ ...rule, required: false }))}
                values={values}
                onChange={setValues}
                small
                prefix="share-"
              />
            </div>
          </>
        )}
        <button type="submit" className="btn justify-self-start" disabled={!unit} aria-busy={share.isPending}>
          Share
        </button>
        <div aria-live="polite">{share.isError && <Trouble error={share.error} />}</div>
      </form>
    </section>
  );
}

/** Asks for a new number; the old one is void. */
export function NumberPanel({ record, unit, wanted }: { record: RecordView; unit: string; wanted: boolean }) {
  const [reason, setReason] = useState("");
  const [given, setGiven] = useState<string>();
  const renumber = useAct<RecordAnswer>((answer) => {
    setReason("");
    setGiven(answer.record.identifier);
  });
  return (
    <section className={`sheet ${wanted ? "border-warning" : ""}`} aria-labelledby="renumber">
      <h2 id="renumber" className="sheet-title">
        Renumber
      </h2>
      <form
        className="p-4 grid gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (!renumber.isPending)
            renumber.mutate({ path: `/records/${record.record}/renumberings`, body: { unit, reason } });
        }}
      >
        <p className="text-sm quiet">
          {record.identifier} becomes void, with the reason, and still leads to this record.
        </p>
        <label className="grid gap-1">
          <span className="text-sm">Reason</span>
          <input
            className="input w-full"
            value={reason}
            autoComplete="off"
            onChange={(event) => setReason(event.target.value)}
          />
        </label>
        <button type="submit" className="btn justify-self-start" aria-busy={renumber.isPending}>
          Renumber
        </button>
        <div aria-live="polite">
          {renumber.isError && <Trouble error={renumber.error} />}
          {given && (
            <p className="text-sm" data-testid="renumbered">
              New number: <span className="identifier font-semibold">{given}</span>
            </p>
          )}
        </div>
      </form>
    </section>
  );
}

/** Deletes the record: by its kind the number is void, or given back. */
export function DeletePanel({ record, kind }: { record: RecordView; kind: KindView }) {
  const [reason, setReason] = useState("");
  const remove = useAct<RecordAnswer>();
  const returns = kind.deleting === "return";
  return (
    <section className="sheet" aria-labelledby="delete">
      <h2 id="delete" className="sheet-title">
        Delete
      </h2>
      <form
        className="p-4 grid gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (!remove.isPending)
            remove.mutate({ path: `/records/${record.record}/deletions`, body: { reason: reason || undefined } });
        }}
      >
        <p className="text-sm quiet">
          {returns
            ? "Its number is returned and issued to the next record, if the series allows returns."
            : "Its number becomes void, with the reason."}{" "}
          Its history stays.
        </p>
        <label className="grid gap-1">
          <span className="text-sm">Reason{returns ? " (optional)" : ""}</span>
          <input
            className="input w-full"
            value={reason}
            autoComplete="off"
            onChange={(event) => setReason(event.target.value)}
          />
        </label>
        <button type="submit" className="btn justify-self-start" aria-busy={remove.isPending}>
          Delete {record.identifier}
          {record.units.length > 1 ? " in all units" : ""}
        </button>
        <div aria-live="polite">{remove.isError && <Trouble error={remove.error} />}</div>
      </form>
    </section>
  );
}
