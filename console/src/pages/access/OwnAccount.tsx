import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { put } from "../../api/client.ts";
import { useSession } from "../../parts/Session.tsx";
import { Trouble } from "../../parts/States.tsx";
import { GrantWords } from "./Grants.tsx";
import { TokenPanel } from "./TokenPanel.tsx";

/** What somebody may do, their password and their tokens. */
export function OwnAccount() {
  const { session } = useSession();
  return (
    <>
      <h1 className="text-2xl font-semibold mb-1">{session.title}</h1>
      <p className="quiet mb-5">
        Signed in as <span className="identifier">{session.account}</span>.
      </p>
      <div className="sheets lg:grid-cols-[minmax(0,1fr)_20rem] items-start">
        <div className="sheets">
          <section className="sheet" aria-labelledby="may">
            <h2 id="may" className="sheet-title">
              What you may do
            </h2>
            <div className="p-4">
              <GrantWords grants={session.grants} />
            </div>
          </section>
          <TokenPanel account={session.account} />
        </div>
        <NewPassword />
      </div>
    </>
  );
}

function NewPassword() {
  const [current, setCurrent] = useState("");
  const [password, setPassword] = useState("");
  const [again, setAgain] = useState("");
  const change = useMutation({
    mutationFn: () => put<void>("/session/password", { current, password }),
    onSuccess: () => {
      setCurrent("");
      setPassword("");
      setAgain("");
    },
  });
  const differ = again !== "" && again !== password;
  const field = (label: string, value: string, set: (text: string) => void, complete: string) => (
    <label className="grid gap-1">
      <span className="text-sm">{label}</span>
      <input
        className="input w-full"
        type="password"
        autoComplete={complete}
        required
        value={value}
        onChange={(event) => set(event.target.value)}
      />
    </label>
  );
  return (
    <form
      className="sheet"
      aria-labelledby="password"
      onSubmit={(event) => {
        event.preventDefault();
        if (!differ && !change.isPending) change.mutate();
      }}
    >
      <h2 id="password" className="sheet-title">
        New password
      </h2>
      <div className="p-4 grid gap-3">
        {field("Current password", current, setCurrent, "current-password")}
        {field("New password, 10 symbols or more", password, setPassword, "new-password")}
        {field("Repeat the new password", again, setAgain, "new-password")}
        {differ && <p className="text-error text-sm">The new passwords differ.</p>}
        <button type="submit" className="btn btn-primary justify-self-start" aria-busy={change.isPending}>
          Change it
        </button>
        <div aria-live="polite">
          {change.isError && <Trouble error={change.error} />}
          {change.isSuccess && (
            <p className="border-l-4 border-success bg-base-200 px-4 py-3">
              Password changed. All other sessions and all tokens have ended.
            </p>
          )}
        </div>
      </div>
    </form>
  );
}
