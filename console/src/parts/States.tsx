import { Problem } from "../api/client.ts";

export function Waiting() {
  return (
    <p className="quiet p-4" role="status">
      Loading …
    </p>
  );
}

/** What went wrong, and what would do. */
export function Trouble({ error }: { error: unknown }) {
  const problem = error instanceof Problem ? error : undefined;
  return (
    <div role="alert" className="border-l-4 border-error bg-base-200 px-4 py-3">
      <p className="font-semibold text-error">{error instanceof Error ? error.message : "Something went wrong."}</p>
      {problem?.accepted && (
        <p className="quiet text-sm mt-1">
          {problem.field ? (
            <>
              <span className="identifier">{problem.field}</span>:{" "}
            </>
          ) : null}
          {problem.accepted}
        </p>
      )}
    </div>
  );
}

export function Nothing({ children }: { children: React.ReactNode }) {
  return <p className="quiet px-4 py-6">{children}</p>;
}
