import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { post, remove, type IssuedToken } from "../../api/client.ts";
import { useTokens } from "../../api/queries.ts";
import { Scroller } from "../../parts/Scroller.tsx";
import { Nothing, Trouble, Waiting } from "../../parts/States.tsx";
import { when } from "../../parts/words.ts";

/** The tokens of an account: what there is, another one, and an end to one. */
export function TokenPanel({ account }: { account: string }) {
  const tokens = useTokens(account);
  const queries = useQueryClient();
  const [name, setName] = useState("");
  const [expires, setExpires] = useState("");
  const path = `/accounts/${encodeURIComponent(account)}/tokens`;
  const settled = { onSettled: () => void queries.invalidateQueries({ queryKey: ["accounts"] }) };
  const issue = useMutation({
    mutationFn: () => post<IssuedToken>(path, { name, ...(expires ? { expires } : {}) }),
    onSuccess: () => setName(""),
    ...settled,
  });
  const revoke = useMutation({ mutationFn: (id: string) => remove(`${path}/${encodeURIComponent(id)}`), ...settled });
  return (
    <section className="sheet" aria-labelledby="tokens">
      <h2 id="tokens" className="sheet-title">
        Tokens
      </h2>
      {tokens.isPending && <Waiting />}
      {tokens.isError && <Trouble error={tokens.error} />}
      {tokens.data?.length === 0 && <Nothing>No tokens yet.</Nothing>}
      {tokens.data && tokens.data.length > 0 && (
        <Scroller label="Tokens">
          <table className="table table-sm">
            <thead>
              <tr>
                <th>Name</th>
                <th>Issued</th>
                <th>Until</th>
                <th>State</th>
                <th>
                  <span className="sr-only">Act</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {tokens.data.map((token) => (
                <tr key={token.id}>
                  <td>
                    {token.name}
                    <div className="quiet text-xs identifier">{token.id}</div>
                  </td>
                  <td className="whitespace-nowrap">{when(token.issued)}</td>
                  <td className="whitespace-nowrap tabular-nums">{token.expires}</td>
                  <td>{token.state}</td>
                  <td className="text-right">
                    {token.state === "in force" && (
                      <button
                        type="button"
                        className="btn btn-xs"
                        disabled={revoke.isPending}
                        aria-label={`Revoke ${token.name}`}
                        onClick={() => revoke.mutate(token.id)}
                      >
                        Revoke
                      </button>
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </Scroller>
      )}
      <form
        className="p-4 flex flex-wrap gap-3 items-end border-t border-base-300"
        aria-label="Issue a token"
        onSubmit={(event) => {
          event.preventDefault();
          if (!issue.isPending) issue.mutate();
        }}
      >
        <label className="grid gap-1 grow">
          <span className="text-sm">What it is for</span>
          <input
            className="input w-full"
            value={name}
            placeholder="The till in the shop"
            autoComplete="off"
            onChange={(event) => setName(event.target.value)}
          />
        </label>
        <label className="grid gap-1">
          <span className="text-sm">
            Last day <span className="quiet">(default: in 90 days)</span>
          </span>
          <input className="input" type="date" value={expires} onChange={(event) => setExpires(event.target.value)} />
        </label>
        <button type="submit" className="btn btn-primary" aria-busy={issue.isPending}>
          Issue a token
        </button>
      </form>
      <div className="px-4 pb-4 grid gap-2" aria-live="polite">
        {issue.isError && <Trouble error={issue.error} />}
        {revoke.isError && <Trouble error={revoke.error} />}
        {issue.data && (
          <Once what={`The token ‘${issue.data.name}’, until ${issue.data.expires}`} secret={issue.data.token} />
        )}
      </div>
    </section>
  );
}

/** A secret that the service shows once and keeps nowhere. */
export function Once({ what, secret }: { what: string; secret: string }) {
  return (
    <div className="border-l-4 border-success bg-base-200 px-4 py-3">
      <p className="text-sm">{what}. It is shown this once:</p>
      <p className="identifier font-semibold whitespace-normal break-all" data-testid="once">
        {secret}
      </p>
    </div>
  );
}
