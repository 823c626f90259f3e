import { useMutation, useQueryClient } from "@tanstack/react-query";
import { sendFile, type RecordView } from "../../api/client.ts";
import { Trouble } from "../../parts/States.tsx";
import { count } from "../../parts/words.ts";

/** The files that go with a record, under its identifier; and the record on paper. */
export function FilePanel({ record, unit, mayAttach }: { record: RecordView; unit: string; mayAttach: boolean }) {
  const queries = useQueryClient();
  const attach = useMutation({
    mutationFn: (file: File) =>
      sendFile(
        `/records/${record.record}/files?${new URLSearchParams({ name: file.name, unit })}`,
        file,
        "application/octet-stream",
        crypto.randomUUID(),
      ),
    onSettled: () => void queries.invalidateQueries({ queryKey: ["records"] }),
  });
  return (
    <section className="sheet" aria-labelledby="files">
      <h2 id="files" className="sheet-title">
        Files
      </h2>
      <div className="p-4 grid gap-3">
        {record.files.length > 0 && (
          <ul className="grid gap-1" data-testid="files">
            {record.files.map((file) => (
              <li key={file.place}>
                <a className="identifier link" href={`/api/v1/records/${record.record}/files/${file.place}`}>
                  {file.name}
                </a>{" "}
                <span className="quiet text-sm">{count(file.size)} bytes</span>
              </li>
            ))}
          </ul>
        )}
        <p>
          <a
            className="btn btn-sm"
            href={`/api/v1/records/${record.record}/page?unit=${unit}`}
            target="_blank"
            rel="noreferrer"
          >
            Print as PDF
          </a>
        </p>
        {mayAttach && (
          <label className="grid gap-1">
            <span className="text-sm">Attach a file; it is named {record.identifier}, with its own extension</span>
            <input
              type="file"
              className="file-input w-full max-w-md"
              aria-busy={attach.isPending}
              onChange={(event) => {
                const file = event.target.files?.[0];
                event.target.value = "";
                if (file) attach.mutate(file);
              }}
            />
          </label>
        )}
        <div aria-live="polite">{attach.isError && <Trouble error={attach.error} />}</div>
      </div>
    </section>
  );
}
