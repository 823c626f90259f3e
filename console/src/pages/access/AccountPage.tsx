import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useParams } from "react-router";
import { post, type AccountView, type GrantView, type OpenedView } from "../../api/client.ts";
import { useAccount, useRouteGrid, useSeriesList } from "../../api/queries.ts";
import { Trouble, Waiting } from "../../parts/States.tsx";
import { rights } from "./Grants.tsx";
import { Once, TokenPanel } from "./TokenPanel.tsx";

/** One account: its grants, its tokens, and what an administrator does about it. */
export function AccountPage() {
  const { name = "" } = useParams();
  const found = useAccount(name);
  const queries = useQueryClient();
  const settled = { onSettled: () => void queries.invalidateQueries({ queryKey: ["accounts"] }) };
  const path = `/accounts/${encodeURIComponent(name)}`;
  const act = useMutation({
    mutationFn: ({ what, body }: { what: string; body: unknown }) => post<AccountView>(`${path}/${what}`, body),
    ...settled,
  });
  const renew = useMutation({ mutationFn: () => post<OpenedView>(`${path}/passwords`, {}), ...settled });
  if (found.isPending) return <Waiting />;
  if (found.isLoadingError) return <Trouble error={found.error} />;
  const account = found.data;
  return (
    <>
      <p className="text-sm mb-1">
        <Link className="link" to="/accounts">
          Accounts
        </Link>{" "}
        <span aria-hidden="true">/</span> <span className="identifier">{account.name}</span>
      </p>
      <div className="flex flex-wrap items-center gap-3 mb-5">
        <h1 className="text-2xl font-semibold">{account.title}</h1>
        <span className="badge">{account.sort}</span>
        {account.closed && <span className="badge badge-error">closed</span>}
        <span className="ml-auto flex gap-2">
          {account.sort === "person" && !account.closed && (
            <button type="button" className="btn btn-sm" aria-busy={renew.isPending} onClick={() => renew.mutate()}>
              New password
            </button>
          )}
          <button
            type="button"
            className="btn btn-sm"
            onClick={() => act.mutate({ what: account.closed ? "reopenings" : "closings", body: {} })}
          >
            {account.closed ? "Reopen the account" : "Close the account"}
          </button>
        </span>
      </div>
      <div aria-live="polite" className="grid gap-2 mb-4 empty:hidden">
        {act.isError && <Trouble error={act.error} />}
        {renew.isError && <Trouble error={renew.error} />}
        {renew.data?.password && (
          <Once
            what={`The new password of ${account.name}; all its sessions and tokens have ended`}
            secret={renew.data.password}
          />
        )}
      </div>
      <div className="sheets">
        <section className="sheet" aria-labelledby="grants">
          <h2 id="grants" className="sheet-title">
            Grants
          </h2>
          {account.grants.length === 0 && <p className="quiet px-4 pt-4">No grants yet.</p>}
          <ul className="px-4 py-3 grid gap-1.5">
            {account.grants.map((grant) => (
              <li key={`${grant.right} ${grant.scope}`} className="flex flex-wrap gap-2 items-center">
                <span>
                  {rights.find(([right]) => right === grant.right)?.[1]} <span className="quiet">for</span>{" "}
                  <span className="identifier">{grant.scope}</span>
                </span>
                <button
                  type="button"
                  className="btn btn-xs ml-auto"
                  aria-label={`Revoke ${grant.right} for ${grant.scope}`}
                  disabled={act.isPending}
                  onClick={() => act.mutate({ what: "withdrawals", body: { grants: [grant] } })}
                >
                  Revoke
                </button>
              </li>
            ))}
          </ul>
          <AddGrant
            pending={act.isPending}
            onGive={(grant) => act.mutate({ what: "grants", body: { grants: [grant] } })}
          />
        </section>
        <TokenPanel account={account.name} />
      </div>
    </>
  );
}

function AddGrant({ pending, onGive }: { pending: boolean; onGive: (grant: GrantView) => void }) {
  const [right, setRight] = useState<GrantView["right"]>("read");
  const [scope, setScope] = useState("all");
  const grid = useRouteGrid();
  const series = useSeriesList();
  const groups: [string, string, string[]][] = [
    ["Units, and those below", "unit", grid.data?.units.map((unit) => unit.key) ?? []],
    ["Kinds of records", "kind", grid.data?.kinds.map((kind) => kind.key) ?? []],
    ["Series", "series", series.data?.map((each) => each.key) ?? []],
  ];
  return (
    <form
      className="p-4 flex flex-wrap gap-3 items-end border-t border-base-300"
      aria-label="Grant a right"
      onSubmit={(event) => {
        event.preventDefault();
        if (!pending) onGive({ right, scope });
      }}
    >
      <label className="grid gap-1">
        <span className="text-sm">Right</span>
        <select
          className="select w-44"
          value={right}
          onChange={(event) => setRight(event.target.value as GrantView["right"])}
        >
          {rights.map(([value, shown]) => (
            <option key={value} value={value}>
              {shown}
            </option>
          ))}
        </select>
      </label>
      <label className="grid gap-1">
        <span className="text-sm">for</span>
        <select className="select w-56" value={scope} onChange={(event) => setScope(event.target.value)}>
          <option value="all">all</option>
          {groups.map(([label, sort, keys]) => (
            <optgroup key={sort} label={label}>
              {keys.map((key) => (
                <option key={key} value={`${sort} ${key}`}>
                  {sort} {key}
                </option>
              ))}
            </optgroup>
          ))}
        </select>
      </label>
      <button type="submit" className="btn btn-primary" aria-busy={pending}>
        Grant
      </button>
    </form>
  );
}
