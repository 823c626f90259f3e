import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { post, type Applied, type StarterView } from "../../api/client.ts";
import { useStarters } from "../../api/queries.ts";
import { Nothing, Trouble, Waiting } from "../../parts/States.tsx";

/** Starter sets: filled in, looked at, edited, applied. */
export function StarterPage() {
  const starters = useStarters();
  if (starters.isPending) return <Waiting />;
  if (starters.isLoadingError) return <Trouble error={starters.error} />;
  return (
    <>
      <h1 className="text-2xl font-semibold mb-1">Starter sets</h1>
      <p className="quiet mb-5">Definitions for a new company: fill in the variables, edit the file, apply it.</p>
      {starters.data.length === 0 ? (
        <Nothing>No starter sets found.</Nothing>
      ) : (
        <div className="sheets">
          {starters.data.map((starter) => (
            <Filling key={starter.name} starter={starter} />
          ))}
        </div>
      )}
    </>
  );
}

function Filling({ starter }: { starter: StarterView }) {
  const queries = useQueryClient();
  const [values, setValues] = useState<Record<string, string>>({});
  const [file, setFile] = useState<{ name: string; text: string }>();
  const fill = useMutation({
    mutationFn: () =>
      post<{ name: string; text: string }>("/starters/fillings", { name: starter.name, variables: values }),
    onSuccess: setFile,
  });
  const apply = useMutation({
    mutationFn: (dryRun: boolean) => post<Applied>(`/definitions?dryRun=${dryRun}`, { files: [file] }),
    onSettled: () => void queries.invalidateQueries(),
  });
  return (
    <section className="sheet" aria-labelledby={starter.name}>
      <h2 id={starter.name} className="sheet-title">
        {starter.title}
      </h2>
      <form
        className="p-4 grid gap-3 sm:grid-cols-3"
        onSubmit={(event) => {
          event.preventDefault();
          apply.reset();
          fill.mutate();
        }}
      >
        {starter.variables.map((variable) => (
          <label key={variable.name} className="grid gap-1 content-start">
            <span className="text-sm">{variable.meaning}</span>
            <input
              className="input w-full identifier"
              required
              value={values[variable.name] ?? ""}
              placeholder={variable.example}
              onChange={(event) => setValues({ ...values, [variable.name]: event.target.value })}
              autoComplete="off"
            />
          </label>
        ))}
        <div className="col-span-full">
          <button type="submit" className="btn" aria-busy={fill.isPending}>
            Fill in
          </button>
        </div>
        <div aria-live="polite" className="col-span-full">
          {fill.isError && <Trouble error={fill.error} />}
        </div>
      </form>
      {file && (
        <div className="p-4 pt-0 grid gap-3">
          <label className="grid gap-1">
            <span className="text-sm">
              The file <span className="identifier">{file.name}</span>
            </span>
            <textarea
              className="textarea w-full font-mono text-sm"
              rows={16}
              spellCheck={false}
              value={file.text}
              onChange={(event) => {
                apply.reset();
                setFile({ ...file, text: event.target.value });
              }}
            />
          </label>
          <div className="flex flex-wrap gap-3">
            <button type="button" className="btn" disabled={apply.isPending} onClick={() => apply.mutate(true)}>
              Show what would change
            </button>
            <button
              type="button"
              className="btn btn-primary"
              disabled={apply.isPending}
              onClick={() => apply.mutate(false)}
            >
              Apply
            </button>
          </div>
          <div aria-live="polite">
            {apply.isError && <Trouble error={apply.error} />}
            {apply.isSuccess && (
              <div className="border-l-4 border-success bg-base-200 px-4 py-3">
                <p className="text-sm mb-1">{apply.variables ? "Dry run: nothing was changed." : "Applied."}</p>
                <ul className="text-sm">
                  {apply.data.series.map((series) => (
                    <li key={series.key}>
                      {series.change} <span className="identifier">{series.key}</span>
                      {series.next[0] && (
                        <>
                          , starts with <span className="identifier">{series.next[0]}</span>
                        </>
                      )}
                    </li>
                  ))}
                </ul>
              </div>
            )}
          </div>
        </div>
      )}
    </section>
  );
}
