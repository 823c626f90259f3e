import { useState } from "react";
import type { DocumentChange } from "../../api/client.ts";

const MOST = 500;

/** What changes, in the order of the count; a row is dragged to another place, or moved with its buttons. */
export function ChangeList({ changes, move }: { changes: DocumentChange[]; move: (from: number, to: number) => void }) {
  const [dragged, setDragged] = useState<number>();
  const further = [...new Set(changes.flatMap((each) => Object.keys(each.also)))];
  return (
    <div className="overflow-x-auto max-h-96 overflow-y-auto">
      <table className="table table-sm">
        <caption className="sr-only">Changes in the order of the count</caption>
        <thead>
          <tr>
            <th scope="col">Item</th>
            <th scope="col">Old</th>
            <th scope="col">New</th>
            {further.map((name) => (
              <th key={name} scope="col">
                {name}
              </th>
            ))}
            <th scope="col">
              <span className="sr-only">Order</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {changes.slice(0, MOST).map((change, at) => (
            <tr
              key={change.item}
              draggable
              className={`cursor-grab ${dragged === at ? "opacity-50" : ""}`}
              onDragStart={() => setDragged(at)}
              onDragOver={(event) => event.preventDefault()}
              onDragEnd={() => setDragged(undefined)}
              onDrop={() => {
                if (dragged !== undefined) move(dragged, at);
                setDragged(undefined);
              }}
            >
              <td className="identifier">{change.item}</td>
              <td>{change.before.trim() || "—"}</td>
              <td className="identifier">{change.after.trim() || "—"}</td>
              {further.map((name) => (
                <td key={name}>{change.also[name] || "—"}</td>
              ))}
              <td className="whitespace-nowrap">
                <button
                  type="button"
                  className="btn btn-ghost btn-xs"
                  disabled={at === 0}
                  aria-label={`Move ${change.item} up`}
                  onClick={() => move(at, at - 1)}
                >
                  ↑
                </button>
                <button
                  type="button"
                  className="btn btn-ghost btn-xs"
                  disabled={at === changes.length - 1}
                  aria-label={`Move ${change.item} down`}
                  onClick={() => move(at, at + 1)}
                >
                  ↓
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {changes.length > MOST && <p className="quiet px-4 py-2">… and {changes.length - MOST} further changes.</p>}
    </div>
  );
}
