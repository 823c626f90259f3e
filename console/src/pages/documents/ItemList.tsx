import type { DocumentItem } from "../../api/client.ts";
import { count } from "../../parts/words.ts";

const MOST = 500;
const COLUMNS = 6;

/** The items of a file that is no drawing: one is picked with its button, in the order in which they are numbered. */
export function ItemList({
  items,
  picked,
  pick,
}: {
  items: DocumentItem[];
  picked: string[];
  pick: (item: string) => void;
}) {
  const names = [
    ...new Set([
      // What people know a thing by comes first, where it has it.
      ...(items.some((item) => item.attributes.name?.trim()) ? ["name"] : []),
      ...items.flatMap((item) =>
        Object.entries(item.attributes)
          .filter(([, value]) => value.trim() && value !== item.text)
          .map(([name]) => name),
      ),
    ]),
  ].slice(0, COLUMNS);
  return (
    <section className="sheet" aria-labelledby="items">
      <h2 id="items" className="sheet-title">
        {count(items.length)} {items.length === 1 ? "item" : "items"}
      </h2>
      <div className="overflow-x-auto max-h-96 overflow-y-auto">
        <table className="table table-sm">
          <thead>
            <tr>
              <th scope="col">Item</th>
              <th scope="col">Text</th>
              {names.map((name) => (
                <th key={name} scope="col">
                  {name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {items.slice(0, MOST).map((item) => (
              <tr key={item.item}>
                <td>
                  <button
                    type="button"
                    className={`btn btn-xs identifier ${picked.includes(item.item) ? "btn-primary" : ""}`}
                    aria-pressed={picked.includes(item.item)}
                    data-item={item.item}
                    onClick={() => pick(item.item)}
                  >
                    {item.item}
                  </button>
                </td>
                <td className="identifier">{item.text.trim() || "—"}</td>
                {names.map((name) => (
                  <td key={name} className="whitespace-nowrap">
                    {item.attributes[name]?.trim() || "—"}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {items.length > MOST && <p className="quiet px-4 py-2">… and {count(items.length - MOST)} further items.</p>}
      <p className="quiet text-sm px-4 py-2">Pick items in the order in which they are to be numbered.</p>
    </section>
  );
}
