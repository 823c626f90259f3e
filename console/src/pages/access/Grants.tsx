import type { GrantView } from "../../api/client.ts";

export const rights: [GrantView["right"], string][] = [
  ["define", "define"],
  ["allocate", "allocate numbers"],
  ["hold", "hold numbers"],
  ["void", "void and return numbers"],
  ["read", "read"],
  ["audit", "audit"],
  ["access", "manage access"],
];

/** Grants in words, those for one place together. */
export function GrantWords({ grants }: { grants: GrantView[] }) {
  if (grants.length === 0) return <span className="quiet">none</span>;
  const places = [...new Set(grants.map((grant) => grant.scope))];
  return (
    <ul className="grid gap-0.5">
      {places.map((scope) => (
        <li key={scope}>
          {grants
            .filter((grant) => grant.scope === scope)
            .map((grant) => rights.find(([right]) => right === grant.right)?.[1])
            .join(", ")}{" "}
          <span className="quiet">for</span> <span className="identifier">{scope}</span>
        </li>
      ))}
    </ul>
  );
}
