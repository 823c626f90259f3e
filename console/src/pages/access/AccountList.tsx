import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { post, type OpenedView } from "../../api/client.ts";
import { useAccounts } from "../../api/queries.ts";
import { Scroller } from "../../parts/Scroller.tsx";
import { Trouble, Waiting } from "../../parts/States.tsx";
import { GrantWords } from "./Grants.tsx";
import { Once } from "./TokenPanel.tsx";

/** Everybody who acts here, and a form for another. */
export function AccountList() {
  const accounts = useAccounts();
  return (
    <>
      <h1 className="text-2xl font-semibold mb-1">Accounts</h1>
      <p className="quiet mb-5">People and programs. Each may do what it was granted, and nothing else.</p>
      <div className="sheets lg:grid-cols-[minmax(0,1fr)_20rem] items-start">
        <section className="sheet min-w-0" aria-label="Accounts">
          {accounts.isPending && <Waiting />}
          {accounts.isError && <Trouble error={accounts.error} />}
          {accounts.data && (
            <Scroller label="Accounts">
              <table className="table table-sm">
                <thead>
                  <tr>
                    <th>Account</th>
                    <th>Sort</th>
                    <th>May</th>
                  </tr>
                </thead>
                <tbody>
                  {accounts.data.map((account) => (
                    <tr key={account.name} className="[&>td]:align-top">
                      <td>
                        <Link className="link font-medium" to={`/accounts/${account.name}`}>
                          {account.title}
                        </Link>
                        <div className="quiet text-xs identifier">{account.name}</div>
                      </td>
                      <td>
                        {account.sort}
                        {account.closed && <div className="text-error font-medium">closed</div>}
                      </td>
                      <td>
                        <GrantWords grants={account.grants} />
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </Scroller>
          )}
        </section>
        <NewAccount />
      </div>
    </>
  );
}

function NewAccount() {
  const queries = useQueryClient();
  const [draft, setDraft] = useState({ name: "", title: "", sort: "person" });
  const open = useMutation({
    mutationFn: () => post<OpenedView>("/accounts", draft),
    onSuccess: () => setDraft({ name: "", title: "", sort: "person" }),
    onSettled: () => void queries.invalidateQueries({ queryKey: ["accounts"] }),
  });
  return (
    <form
      className="sheet"
      aria-labelledby="open"
      onSubmit={(event) => {
        event.preventDefault();
        if (!open.isPending) open.mutate();
      }}
    >
      <h2 id="open" className="sheet-title">
        Open an account
      </h2>
      <div className="p-4 grid gap-3">
        <label className="grid gap-1">
          <span className="text-sm">Name to sign in with</span>
          <input
            className="input w-full font-mono"
            value={draft.name}
            placeholder="tobin"
            autoComplete="off"
            autoCapitalize="none"
            spellCheck={false}
            onChange={(event) => setDraft({ ...draft, name: event.target.value })}
          />
        </label>
        <label className="grid gap-1">
          <span className="text-sm">Who or what it is for</span>
          <input
            className="input w-full"
            value={draft.title}
            placeholder="Tobin, clerk of tuning and care"
            autoComplete="off"
            onChange={(event) => setDraft({ ...draft, title: event.target.value })}
          />
        </label>
        <label className="grid gap-1">
          <span className="text-sm">Sort</span>
          <select
            className="select w-full"
            value={draft.sort}
            onChange={(event) => setDraft({ ...draft, sort: event.target.value })}
          >
            <option value="person">a person, with a password</option>
            <option value="program">a program, with tokens only</option>
          </select>
        </label>
        <button type="submit" className="btn btn-primary justify-self-start" aria-busy={open.isPending}>
          Open the account
        </button>
        <div aria-live="polite" className="grid gap-2">
          {open.isError && <Trouble error={open.error} />}
          {open.data?.password && (
            <Once what={`The password of ${open.data.account.name}`} secret={open.data.password} />
          )}
          {open.data && (
            <p className="text-sm">
              It has no grants yet:{" "}
              <Link className="link" to={`/accounts/${open.data.account.name}`}>
                grant rights
              </Link>
              .
            </p>
          )}
        </div>
      </div>
    </form>
  );
}
