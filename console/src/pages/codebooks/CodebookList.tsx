import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { defineCodebook } from "../../api/client.ts";
import { useCodebooks } from "../../api/queries.ts";
import { Scroller } from "../../parts/Scroller.tsx";
import { Nothing, Trouble, Waiting } from "../../parts/States.tsx";
import { count } from "../../parts/words.ts";

function NewCodebook() {
  const [draft, setDraft] = useState({ key: "", title: "", name: "", code: "" });
  const queries = useQueryClient();
  const navigate = useNavigate();
  const save = useMutation({
    mutationFn: () =>
      defineCodebook({
        key: draft.key.trim(),
        ...(draft.title.trim() ? { title: draft.title } : {}),
        choices: [{ name: draft.name, code: draft.code }],
      }),
    onSuccess: (saved) => {
      void queries.invalidateQueries();
      void navigate(`/codebooks/${saved.key}`);
    },
  });
  const field = (name: keyof typeof draft, label: string, placeholder: string) => (
    <label className="grid gap-1">
      <span className="text-sm">{label}</span>
      <input
        className="input w-full"
        value={draft[name]}
        placeholder={placeholder}
        autoComplete="off"
        onChange={(event) => setDraft({ ...draft, [name]: event.target.value })}
      />
    </label>
  );
  return (
    <form
      className="sheet"
      aria-labelledby="new"
      onSubmit={(event) => {
        event.preventDefault();
        if (!save.isPending) save.mutate();
      }}
    >
      <h2 id="new" className="sheet-title">
        New codebook
      </h2>
      <div className="p-4 grid gap-3">
        {field("key", "Key", "component")}
        {field("title", "Title", "Components of an organ")}
        {field("name", "First choice", "Wind-chest")}
        {field("code", "Its code", "WC")}
        <button type="submit" className="btn btn-primary justify-self-start" aria-busy={save.isPending}>
          Define the codebook
        </button>
        <div aria-live="polite">{save.isError && <Trouble error={save.error} />}</div>
      </div>
    </form>
  );
}

/** All codebooks, and a form for another. */
export function CodebookList() {
  const books = useCodebooks();
  return (
    <>
      <h1 className="text-2xl font-semibold mb-1">Codebooks</h1>
      <p className="quiet mb-5">The full names that people choose, and their codes in identifiers.</p>
      <div className="sheets lg:grid-cols-[minmax(0,1fr)_20rem] items-start">
        <section className="sheet min-w-0" aria-label="Codebooks">
          {books.isPending && <Waiting />}
          {books.isError && <Trouble error={books.error} />}
          {books.data?.length === 0 && <Nothing>No codebooks are defined.</Nothing>}
          {books.data && books.data.length > 0 && (
            <Scroller label="Codebooks">
              <table className="table table-sm">
                <thead>
                  <tr>
                    <th>Codebook</th>
                    <th className="text-right">Choices</th>
                    <th>Used by</th>
                  </tr>
                </thead>
                <tbody>
                  {books.data.map((book) => (
                    <tr key={book.key}>
                      <td>
                        <Link className="link font-medium" to={`/codebooks/${book.key}`}>
                          {book.title}
                        </Link>
                        <div className="quiet text-xs identifier">{book.key}</div>
                      </td>
                      <td className="text-right tabular-nums">{count(book.choices.length)}</td>
                      <td>
                        {book.usedBy.length === 0 ? (
                          <span className="quiet">none</span>
                        ) : (
                          book.usedBy.map((key, i) => (
                            <span key={key}>
                              {i > 0 && ", "}
                              <Link className="link" to={`/series/${key}`}>
                                {key}
                              </Link>
                            </span>
                          ))
                        )}
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </Scroller>
          )}
        </section>
        <NewCodebook />
      </div>
    </>
  );
}
