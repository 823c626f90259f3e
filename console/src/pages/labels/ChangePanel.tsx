import { useState } from "react";
import type { LabelJob } from "../../api/client.ts";
import { useAct } from "../../api/useAct.ts";
import { useSession } from "../../parts/Session.tsx";
import { Trouble } from "../../parts/States.tsx";
import { count } from "../../parts/words.ts";

const acts = [
  { path: "confirmations", right: "allocate", name: "Confirm", told: "They are printed, as you see." },
  {
    path: "reprints",
    right: "allocate",
    name: "Reprint",
    told: "They are printed again with the same identifiers. What was sent or unconfirmed counts as spoiled.",
  },
  {
    path: "spoilages",
    right: "void",
    name: "Spoil",
    told: "They are of no use. A number that no other label bears becomes void, and a label with a new one waits in its stead.",
  },
  {
    path: "cancellations",
    right: "allocate",
    name: "Cancel",
    told: "They are not printed. Numbers that no other label bears are returned, or void where the series allows no returns. Without places: all that wait.",
  },
] as const;

/** What a person says of labels, or wants done with them. */
export function ChangePanel({ job, size }: { job: number; size: number }) {
  const { may } = useSession();
  const [path, setPath] = useState<string>("confirmations");
  const [places, setPlaces] = useState("");
  const [reason, setReason] = useState("");
  const [replace, setReplace] = useState(true);
  const change = useAct<LabelJob>(() => {
    setPlaces("");
    setReason("");
  });
  const act = acts.find((each) => each.path === path);
  const named = places
    .split(",")
    .map((each) => each.trim())
    .filter((each) => each !== "");
  return (
    <section className="sheet" aria-labelledby="change">
      <h2 id="change" className="sheet-title">
        Confirm, reprint, spoil, cancel
      </h2>
      <form
        className="p-4 grid gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (change.isPending) return;
          change.mutate({
            path: `/label-jobs/${job}/${path}`,
            body: {
              ...(named.length > 0 ? { places: named } : {}),
              ...(reason.trim() ? { reason: reason.trim() } : {}),
              ...(path === "spoilages" ? { replace } : {}),
            },
          });
        }}
      >
        <div className="grid gap-3 sm:grid-cols-3">
          <label className="grid gap-1">
            <span className="text-sm">What</span>
            <select className="select w-full" value={path} onChange={(event) => setPath(event.target.value)}>
              {acts
                .filter((each) => may(each.right))
                .map((each) => (
                  <option key={each.path} value={each.path}>
                    {each.name}
                  </option>
                ))}
            </select>
          </label>
          <label className="grid gap-1">
            <span className="text-sm">
              Places <span className="quiet">(1 to {count(size)}, such as 5 or 121-140)</span>
            </span>
            <input
              className="input w-full"
              required={path !== "cancellations"}
              autoComplete="off"
              value={places}
              onChange={(event) => setPlaces(event.target.value)}
            />
          </label>
          {path !== "confirmations" && (
            <label className="grid gap-1">
              <span className="text-sm">
                Reason {path !== "spoilages" && <span className="quiet">(optional)</span>}
              </span>
              <input
                className="input w-full"
                required={path === "spoilages"}
                autoComplete="off"
                value={reason}
                onChange={(event) => setReason(event.target.value)}
              />
            </label>
          )}
        </div>
        {path === "spoilages" && (
          <label className="flex items-center gap-2 text-sm">
            <input
              type="checkbox"
              className="checkbox checkbox-sm"
              checked={replace}
              onChange={(event) => setReplace(event.target.checked)}
            />
            Print others in their stead
          </label>
        )}
        <p className="text-sm quiet">{act?.told}</p>
        <button type="submit" className="btn justify-self-start" aria-busy={change.isPending}>
          {act?.name}
        </button>
        <div aria-live="polite" className="empty:hidden">
          {change.isError && <Trouble error={change.error} />}
        </div>
      </form>
    </section>
  );
}
