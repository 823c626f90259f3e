import type { DocumentLine, DocumentSheet } from "../../api/client.ts";
import { count } from "../../parts/words.ts";

const MOST = 1_000;

/** The lines of programs that change, as they are and as they will be. */
export function LineList({ lines, sheets }: { lines: DocumentLine[]; sheets: DocumentSheet[] }) {
  return (
    <section className="sheet" aria-labelledby="lines">
      <h2 id="lines" className="sheet-title">
        {count(lines.length)} {lines.length === 1 ? "line" : "lines"} to change
      </h2>
      <div className="overflow-x-auto max-h-96 overflow-y-auto" tabIndex={0} role="region" aria-labelledby="lines">
        <table className="table table-sm">
          <thead>
            <tr>
              {sheets.length > 1 && <th scope="col">Sheet</th>}
              <th scope="col">Line</th>
              <th scope="col">Old and new</th>
            </tr>
          </thead>
          <tbody>
            {lines.slice(0, MOST).map((each) => (
              <tr key={`${each.sheet}:${each.line}`}>
                {sheets.length > 1 && <td>{sheets[each.sheet - 1]?.name}</td>}
                <td>{each.line}</td>
                <td className="identifier whitespace-pre">
                  <del className="quiet block no-underline">− {each.before}</del>
                  <ins className="block no-underline">+ {each.after}</ins>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {lines.length > MOST && <p className="quiet px-4 py-2">… and {count(lines.length - MOST)} further lines.</p>}
    </section>
  );
}
