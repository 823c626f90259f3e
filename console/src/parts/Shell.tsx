import { useEffect, useRef, useState } from "react";
import { Link, NavLink, Outlet, useLocation } from "react-router";
import { useStatus } from "../api/queries.ts";
import { receiptOf } from "../api/receipts.ts";
import { useLive } from "../api/useLive.ts";
import { count } from "./words.ts";
import { useSession, useSignOut, type Right } from "./Session.tsx";

/** Each page, and the right without which it has nothing to show. */
const places: { to: string; name: string; right?: Right }[] = [
  { to: "/", name: "Overview", right: "read" },
  { to: "/records", name: "Records", right: "read" },
  { to: "/tables", name: "Tables", right: "read" },
  { to: "/documents", name: "Documents", right: "read" },
  { to: "/labels", name: "Labels", right: "read" },
  { to: "/series", name: "Series", right: "read" },
  { to: "/life", name: "Held and void", right: "read" },
  { to: "/calendar", name: "Calendar", right: "read" },
  { to: "/closings", name: "Closed periods", right: "read" },
  { to: "/routes", name: "Kinds and routes", right: "read" },
  { to: "/codebooks", name: "Codebooks", right: "read" },
  { to: "/starters", name: "Starter sets", right: "define" },
  { to: "/accounts", name: "Accounts", right: "access" },
  { to: "/check", name: "Check digits" },
];

/** A reason as the service tells it, as a sentence of its own. */
const sentence = (why: string) => `${why.charAt(0).toUpperCase()}${why.slice(1).replace(/\.$/, "")}.`;

function Banner() {
  const status = useStatus();
  const { may } = useSession();
  const heard = useLive(may("read"));
  const why = status.data?.stopped ?? status.data?.paused;
  if (why)
    return (
      <p role="alert" className="bg-error text-error-content px-6 py-3">
        <strong>No numbers are allocated.</strong> {sentence(why)}
        {status.data?.rollback && may("define") && (
          <>
            {" "}
            <Link className="underline font-semibold" to="/restore">
              State what may have been issued
            </Link>
          </>
        )}
      </p>
    );
  if (status.data && status.data.remarks.length > 0)
    return (
      <div role="alert" className="bg-warning text-warning-content px-6 py-2">
        {status.data.remarks.map((remark) => (
          <p key={remark}>{sentence(remark)}</p>
        ))}
      </div>
    );
  if (!heard || status.isError)
    return (
      <p role="alert" className="bg-warning text-warning-content px-6 py-2">
        The service cannot be reached. What is shown may be out of date.
      </p>
    );
  return null;
}

/** The ledger by its own name, and the last entry of which this browser has a receipt. */
function LastReceipt() {
  const status = useStatus();
  const [ledger] = status.data?.receipt?.split(".") ?? [];
  const entry = ledger === undefined ? undefined : receiptOf(ledger);
  if (ledger === undefined || entry === undefined) return null;
  return (
    <footer className="quiet text-sm px-4 md:px-8 pb-4">
      Ledger {ledger.slice(0, 8)}, receipt of entry {count(entry)}
    </footer>
  );
}

function LookSwitch() {
  const [look, setLook] = useState(localStorage.getItem("look") ?? "");
  useEffect(() => {
    if (look) document.documentElement.dataset.theme = look;
    else delete document.documentElement.dataset.theme;
    localStorage.setItem("look", look);
  }, [look]);
  return (
    <label className="text-sm flex items-center gap-2">
      <span>Look</span>
      <select
        className="select select-xs w-24 bg-transparent text-neutral-content border-neutral-content/60"
        value={look}
        onChange={(event) => setLook(event.target.value)}
      >
        <option className="text-base-content" value="">
          as system
        </option>
        <option className="text-base-content" value="day">
          day
        </option>
        <option className="text-base-content" value="night">
          night
        </option>
      </select>
    </label>
  );
}

function SignOut() {
  const signOut = useSignOut();
  return (
    <button
      type="button"
      className="btn btn-xs bg-transparent text-neutral-content border-neutral-content/60"
      onClick={() => signOut.mutate()}
      aria-busy={signOut.isPending}
    >
      Sign out
    </button>
  );
}

/** The frame around every page. */
export function Shell() {
  const { pathname } = useLocation();
  const { session, may } = useSession();
  const main = useRef<HTMLElement>(null);
  const shown = useRef(pathname);
  // After a move to another page the keyboard goes on from its top.
  useEffect(() => {
    if (shown.current !== pathname) main.current?.focus();
    shown.current = pathname;
  }, [pathname]);
  return (
    <div className="min-h-screen flex flex-col md:flex-row">
      <a href="#main" className="sr-only focus:not-sr-only focus:absolute focus:z-10 focus:bg-base-100 focus:p-3">
        Skip to content
      </a>
      <header className="bg-neutral text-neutral-content md:w-48 md:h-screen md:sticky md:top-0 flex md:flex-col items-center md:items-stretch gap-x-4 gap-y-6 px-4 py-3 md:py-6 flex-wrap">
        <div className="flex items-center gap-2.5">
          <img src="/mark.svg" alt="" width="30" height="30" />
          <span className="font-semibold leading-tight">Young Tally</span>
        </div>
        <nav aria-label="Pages" className="flex flex-wrap md:flex-col gap-1">
          {places
            .filter((place) => !place.right || may(place.right))
            .map((place) => (
              <NavLink
                key={place.to}
                to={place.to}
                end={place.to === "/"}
                className={({ isActive }) =>
                  `px-2 md:px-3 py-1.5 whitespace-nowrap text-sm md:text-base rounded-field border-l-3 ${isActive ? "border-accent bg-neutral-content/10 font-semibold" : "border-transparent hover:bg-neutral-content/10"}`
                }
              >
                {place.name}
              </NavLink>
            ))}
        </nav>
        <div className="ml-auto md:ml-0 md:mt-auto flex md:grid gap-x-4 gap-y-3 items-center flex-wrap">
          <div className="text-sm flex md:grid gap-x-3 gap-y-1 items-center md:justify-items-start">
            <NavLink to="/account" className="underline font-medium" title="Your account">
              {session.title}
            </NavLink>
            <SignOut />
          </div>
          <LookSwitch />
        </div>
      </header>
      <div className="flex-1 min-w-0">
        <Banner />
        <main id="main" ref={main} tabIndex={-1} className="outline-none px-4 md:px-8 py-6 max-w-6xl">
          <Outlet />
        </main>
        <LastReceipt />
      </div>
    </div>
  );
}
