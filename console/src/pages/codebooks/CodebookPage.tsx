import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { Link, useParams } from "react-router";
import { defineCodebook, type Choice, type CodebookView } from "../../api/client.ts";
import { useCodebooks } from "../../api/queries.ts";
import { Scroller } from "../../parts/Scroller.tsx";
import { Trouble, Waiting } from "../../parts/States.tsx";

/** A choice, where it stands: the codes above it, then its own. */
type Placed = { path: string[]; choice: Choice };

const placed = (choices: Choice[], above: string[] = []): Placed[] =>
  choices.flatMap((choice) => [
    { path: [...above, choice.code ?? ""], choice },
    ...placed(choice.choices ?? [], [...above, choice.code ?? ""]),
  ]);

/** The choices with those at one place changed. */
const at = (choices: Choice[], path: string[], change: (choices: Choice[]) => Choice[]): Choice[] =>
  path.length === 0
    ? change(choices)
    : choices.map((choice) =>
        choice.code === path[0] ? { ...choice, choices: at(choice.choices ?? [], path.slice(1), change) } : choice,
      );

export function CodebookPage() {
  const { key = "" } = useParams();
  const books = useCodebooks();
  if (books.isPending) return <Waiting />;
  if (books.isLoadingError) return <Trouble error={books.error} />;
  const book = books.data.find((each) => each.key === key);
  if (!book)
    return (
      <p className="p-4">
        Codebook ‘{key}’ not found.{" "}
        <Link className="link" to="/codebooks">
          Show all codebooks
        </Link>
        .
      </p>
    );
  return <Book book={book} />;
}

function Book({ book }: { book: CodebookView }) {
  const queries = useQueryClient();
  const [told, setTold] = useState("");
  const save = useMutation({
    mutationFn: ({ choices }: { choices: Choice[]; done: string }) =>
      defineCodebook({ key: book.key, title: book.title, choices }, book.version),
    onSuccess: (_, { done }) => setTold(done),
    onError: () => setTold(""),
    onSettled: () => void queries.invalidateQueries(),
  });
  const change = (path: string[], by: (choices: Choice[]) => Choice[], done: string) =>
    save.mutateAsync({ choices: at(book.choices, path, by), done });
  const all = placed(book.choices);
  return (
    <>
      <p className="text-sm mb-1">
        <Link className="link" to="/codebooks">
          Codebooks
        </Link>{" "}
        <span aria-hidden="true">/</span> <span className="identifier">{book.key}</span>
      </p>
      <h1 className="text-2xl font-semibold mb-1">{book.title}</h1>
      <p className="quiet mb-5">
        {book.usedBy.length === 0 ? (
          "Not used by a series yet."
        ) : (
          <>
            Used by{" "}
            {book.usedBy.map((series, i) => (
              <span key={series}>
                {i > 0 && ", "}
                <Link className="link" to={`/series/${series}`}>
                  {series}
                </Link>
              </span>
            ))}
            .
          </>
        )}{" "}
        A code is never reused for another choice.
      </p>
      <div className="sheets lg:grid-cols-[minmax(0,1fr)_20rem] items-start">
        <section className="sheet min-w-0" aria-label="Choices">
          <Scroller label="Choices">
            <table className="table table-sm">
              <thead>
                <tr>
                  <th>Code</th>
                  <th>Name</th>
                  <th>State</th>
                  <th>
                    <span className="sr-only">Act</span>
                  </th>
                </tr>
              </thead>
              <tbody>
                {all.map(({ path, choice }) => (
                  <tr key={path.join(" ")}>
                    <td
                      className="identifier whitespace-nowrap"
                      style={{ paddingLeft: `${path.length * 1.25 - 0.5}rem` }}
                    >
                      {choice.code}
                    </td>
                    <td className={choice.retired ? "quiet" : ""}>{choice.name}</td>
                    <td>{choice.retired ? "retired" : "offered"}</td>
                    <td className="text-right">
                      <button
                        type="button"
                        className="btn btn-xs"
                        disabled={save.isPending}
                        aria-label={`${choice.retired ? "Bring back" : "Retire"} ${choice.name}`}
                        onClick={() =>
                          void change(
                            path.slice(0, -1),
                            (choices) =>
                              choices.map((each) =>
                                each.code === choice.code ? { ...each, retired: !choice.retired } : each,
                              ),
                            `${choice.name} is ${choice.retired ? "brought back" : "retired"}.`,
                          ).catch(() => undefined)
                        }
                      >
                        {choice.retired ? "Bring back" : "Retire"}
                      </button>
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </Scroller>
        </section>
        <AddChoice
          all={all}
          pending={save.isPending}
          onAdd={(path, choice) =>
            change(path, (choices) => [...choices, choice], `Added: ${choice.code}, ${choice.name}.`)
          }
        >
          <div aria-live="polite">
            {save.isError && <Trouble error={save.error} />}
            {told && (
              <p className="border-l-4 border-success bg-base-200 px-4 py-3" data-testid="told">
                {told}
              </p>
            )}
          </div>
        </AddChoice>
      </div>
    </>
  );
}

function AddChoice({
  all,
  pending,
  onAdd,
  children,
}: {
  all: Placed[];
  pending: boolean;
  onAdd: (path: string[], choice: Choice) => Promise<unknown>;
  children: React.ReactNode;
}) {
  const [beneath, setBeneath] = useState("");
  const [name, setName] = useState("");
  const [code, setCode] = useState("");
  const nameField = useRef<HTMLInputElement>(null);
  const add = async () => {
    try {
      await onAdd(beneath ? beneath.split("\n") : [], { name, code });
    } catch {
      return; // Told beside the form; what was typed stays.
    }
    setName("");
    setCode("");
    nameField.current?.focus();
  };
  return (
    <form
      className="sheet"
      aria-labelledby="add"
      onSubmit={(event) => {
        event.preventDefault();
        if (!pending) void add();
      }}
    >
      <h2 id="add" className="sheet-title">
        Add a choice
      </h2>
      <div className="p-4 grid gap-3">
        <label className="grid gap-1">
          <span className="text-sm">
            Within <span className="quiet">(the choice above it)</span>
          </span>
          <select className="select w-full" value={beneath} onChange={(event) => setBeneath(event.target.value)}>
            <option value="">none: first level</option>
            {all
              .filter(({ choice }) => !choice.retired)
              .map(({ path, choice }) => (
                <option key={path.join(" ")} value={path.join("\n")}>
                  {"· ".repeat(path.length - 1)}
                  {choice.name} ({choice.code})
                </option>
              ))}
          </select>
        </label>
        <label className="grid gap-1">
          <span className="text-sm">Name</span>
          <input
            ref={nameField}
            className="input w-full"
            value={name}
            autoComplete="off"
            placeholder="Wind-chest"
            onChange={(event) => setName(event.target.value)}
          />
        </label>
        <label className="grid gap-1">
          <span className="text-sm">Code</span>
          <input
            className="input w-full font-mono"
            value={code}
            autoComplete="off"
            placeholder="WC"
            onChange={(event) => setCode(event.target.value)}
          />
        </label>
        <button type="submit" className="btn btn-primary justify-self-start" aria-busy={pending}>
          Add the choice
        </button>
        {children}
      </div>
    </form>
  );
}
