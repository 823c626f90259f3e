import { useState } from "react";
import { Link, useParams } from "react-router";
import type { KindView, RecordDetail } from "../../api/client.ts";
import { useKinds, useRecord, useUnits } from "../../api/queries.ts";
import { useSession } from "../../parts/Session.tsx";
import { Trouble, Waiting } from "../../parts/States.tsx";
import { EditForm } from "./EditForm.tsx";
import { FilePanel } from "./FilePanel.tsx";
import { History } from "./History.tsx";
import { DeletePanel, NumberPanel, SharePanel } from "./Acts.tsx";
import { called, home, unitTitle } from "./record.ts";

/** One record: what it holds in each unit, its number, its files and its whole history. */
export function RecordPage() {
  const { record = "" } = useParams();
  const detail = useRecord(record);
  const kinds = useKinds();
  if (detail.isPending || kinds.isPending) return <Waiting />;
  if (detail.isLoadingError || kinds.isLoadingError) return <Trouble error={detail.error ?? kinds.error} />;
  const kind = kinds.data.find((each) => each.key === detail.data.record.kind);
  if (!kind) return <Trouble error={new Error(`The kind ${detail.data.record.kind} is not defined.`)} />;
  return <Shown key={record} detail={detail.data} kind={kind} />;
}

function Shown({ detail, kind }: { detail: RecordDetail; kind: KindView }) {
  const { may } = useSession();
  const units = useUnits();
  const { record } = detail;
  const [unit, setUnit] = useState(home(record).unit);
  return (
    <div className="sheets">
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-2">
        <h1 className="text-2xl font-semibold identifier">{record.identifier}</h1>
        <p className="text-lg">{called(record, kind)}</p>
        <p className="quiet">
          {kind.title} · {record.deleted ? "deleted; number " : "number "}
          {detail.state} ·{" "}
          <Link className="link" to={`/series/${record.series}`}>
            {record.series}
          </Link>
        </p>
      </div>
      {detail.instead && (
        <p className="border-l-4 border-warning bg-base-200 px-4 py-3" data-testid="instead">
          <strong>The number was made of earlier values of the record.</strong> It does not change. Renumber the record
          below to get a new one; the old one then becomes void.
        </p>
      )}
      {record.units.length > 1 && (
        <div role="group" aria-label="Unit" className="flex flex-wrap gap-2">
          {record.units.map((each) => (
            <button
              key={each.unit}
              type="button"
              className={`btn btn-sm ${each.unit === unit ? "btn-primary" : ""}`}
              aria-pressed={each.unit === unit}
              onClick={() => setUnit(each.unit)}
            >
              {unitTitle(units.data, each.unit)}
            </button>
          ))}
        </div>
      )}
      <EditForm key={unit} record={record} kind={kind} unit={unit} mayEdit={may("allocate") && !record.deleted} />
      {!record.deleted && may("allocate") && (
        <div className="grid gap-6 md:grid-cols-2 items-start">
          <SharePanel record={record} kind={kind} />
          {may("void") && <NumberPanel record={record} unit={unit} wanted={detail.instead !== undefined} />}
          {may("void") && <DeletePanel record={record} kind={kind} />}
        </div>
      )}
      <FilePanel record={record} unit={unit} mayAttach={may("allocate") && !record.deleted} />
      <History record={String(record.record)} />
    </div>
  );
}
