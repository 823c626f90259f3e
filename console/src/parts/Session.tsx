import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { createContext, useContext, useEffect, useRef, useState } from "react";
import { get, onSignedOut, post, Problem, remove, showSecret, type SessionView } from "../api/client.ts";
import { Trouble, Waiting } from "./States.tsx";

export type Right = "define" | "allocate" | "hold" | "void" | "read" | "audit" | "access";

const Current = createContext<SessionView | undefined>(undefined);

/** Who is signed in, and whether they may do something anywhere; where exactly, the service says. */
export function useSession() {
  const session = useContext(Current);
  if (!session) throw new Error("no account is signed in");
  return { session, may: (right: Right) => session.grants.some((grant) => grant.right === right) };
}

/** @param known who was signed in: the pages stay while they sign in again */
const ask = async (known: SessionView | null): Promise<SessionView | null> => {
  try {
    const session = await get<SessionView>("/session");
    showSecret(session.secret);
    return session;
  } catch (error) {
    if (error instanceof Problem && error.status === 401) return known;
    throw error;
  }
};

/** Ends the session; nothing of what was shown stays in this page. */
export function useSignOut() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: () => remove("/session"),
    onSettled: () => {
      queries.clear();
      location.assign("/");
    },
  });
}

/** Shows the pages to somebody who is signed in, and to everybody else the way to sign in. */
export function SessionGate({ children }: { children: React.ReactNode }) {
  const queries = useQueryClient();
  const session = useQuery({
    queryKey: ["session"],
    queryFn: () => ask(queries.getQueryData<SessionView>(["session"]) ?? null),
    staleTime: Infinity,
    retry: false,
  });
  const [ended, setEnded] = useState(false);
  useEffect(() => {
    onSignedOut(() => setEnded((before) => before || queries.getQueryData(["session"]) != null));
  }, [queries]);
  if (session.isPending) return <Waiting />;
  if (session.isLoadingError)
    return (
      <div className="p-6">
        <Trouble error={session.error} />
        <button type="button" className="btn mt-4" onClick={() => void session.refetch()}>
          Try again
        </button>
      </div>
    );
  if (!session.data) return <SignIn />;
  // What was typed on a page stays there while its reader signs in again above it.
  return (
    <Current.Provider value={session.data}>
      {ended && (
        <div
          role="dialog"
          aria-modal="true"
          aria-label="Sign in again"
          className="fixed inset-0 z-20 bg-base-100/90 overflow-auto"
        >
          <SignIn again={session.data.account} onDone={() => setEnded(false)} />
        </div>
      )}
      {children}
    </Current.Provider>
  );
}

function SignIn({ again, onDone }: { again?: string; onDone?: () => void }) {
  const queries = useQueryClient();
  const [account, setAccount] = useState(again ?? "");
  const [password, setPassword] = useState("");
  const field = useRef<HTMLInputElement>(null);
  const signIn = useMutation({
    mutationFn: () => post<SessionView>("/session", { account, password }),
    onSuccess: (session) => {
      showSecret(session.secret);
      queries.setQueryData(["session"], session);
      void queries.invalidateQueries({
        predicate: (query) => query.queryKey[0] !== "session" && query.queryKey[0] !== "definition",
      });
      onDone?.();
    },
    onError: () => {
      setPassword("");
      field.current?.focus();
    },
  });
  return (
    <div className="min-h-screen grid place-items-center p-4">
      <form
        className="sheet w-full max-w-sm"
        aria-labelledby="sign-in"
        onSubmit={(event) => {
          event.preventDefault();
          if (!signIn.isPending) signIn.mutate();
        }}
      >
        <h1 id="sign-in" className="sheet-title flex items-center gap-2.5">
          <img src="/mark.svg" alt="" width="24" height="24" />
          {again ? "Sign in again" : "Sign in to Young Tally"}
        </h1>
        <div className="p-4 grid gap-3">
          {again && <p className="quiet text-sm">The session has ended. Your entries are kept.</p>}
          <label className="grid gap-1">
            <span className="text-sm">Account</span>
            <input
              className="input w-full"
              name="account"
              autoComplete="username"
              autoCapitalize="none"
              spellCheck={false}
              autoFocus={!again}
              required
              value={account}
              disabled={again !== undefined}
              onChange={(event) => setAccount(event.target.value)}
            />
          </label>
          <label className="grid gap-1">
            <span className="text-sm">Password</span>
            <input
              ref={field}
              className="input w-full"
              name="password"
              type="password"
              autoComplete="current-password"
              autoFocus={again !== undefined}
              required
              value={password}
              onChange={(event) => setPassword(event.target.value)}
            />
          </label>
          <button type="submit" className="btn btn-primary" aria-busy={signIn.isPending}>
            Sign in
          </button>
          <div aria-live="polite">{signIn.isError && <Trouble error={signIn.error} />}</div>
        </div>
      </form>
    </div>
  );
}
