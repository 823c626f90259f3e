import { useMutation } from "@tanstack/react-query";
import { sendFile, type LabelTable } from "../../api/client.ts";
import { Trouble } from "../../parts/States.tsx";
import { count } from "../../parts/words.ts";

/** A table with a row for each label: it is sent as soon as it is chosen. */
export function TableChoice({
  table,
  set,
}: {
  table: LabelTable | undefined;
  set: (table: LabelTable | undefined) => void;
}) {
  const send = useMutation({
    mutationFn: async (file: File) => {
      const answer = await sendFile(
        `/label-tables?name=${encodeURIComponent(file.name)}`,
        file,
        "application/octet-stream",
        crypto.randomUUID(),
      );
      return (await answer.json()) as LabelTable;
    },
    onSuccess: set,
  });
  return (
    <div className="grid gap-1 sm:col-span-3">
      <label className="grid gap-1">
        <span className="text-sm">
          Table{" "}
          <span className="quiet">
            (optional; CSV or XLSX with a row for each label, and columns with the names of fields)
          </span>
        </span>
        <input
          className="file-input w-full max-w-xl"
          type="file"
          accept=".csv,.xlsx"
          onChange={(event) => {
            set(undefined);
            const file = event.target.files?.[0];
            if (file) send.mutate(file);
          }}
        />
      </label>
      <div aria-live="polite" className="empty:hidden">
        {table && (
          <p className="text-sm">
            {count(table.rows)} {table.rows === 1 ? "row" : "rows"}: {table.columns.join(", ")}
          </p>
        )}
        {send.isError && !table && <Trouble error={send.error} />}
      </div>
    </div>
  );
}
