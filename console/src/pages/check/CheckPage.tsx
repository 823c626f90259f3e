import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { post, type CheckAddition, type CheckResult, type SchemeView } from "../../api/client.ts";
import { useCheckSchemes } from "../../api/queries.ts";
import { Trouble, Waiting } from "../../parts/States.tsx";

/** Verifies a typed or scanned identifier, or adds what it lacks. */
export function CheckPage() {
  const schemes = useCheckSchemes();
  const [name, setName] = useState("gs1");
  const [text, setText] = useState("");
  const verify = useMutation({ mutationFn: () => post<CheckResult>("/checks", { scheme: name, text }) });
  const add = useMutation({ mutationFn: () => post<CheckAddition>("/check-additions", { scheme: name, text }) });
  if (!schemes.data) return schemes.isError ? <Trouble error={schemes.error} /> : <Waiting />;
  const scheme = schemes.data.find((each) => each.name === name);
  const clear = () => {
    verify.reset();
    add.reset();
  };
  return (
    <>
      <h1 className="text-2xl font-semibold mb-5">Check digits</h1>
      <div className="sheets lg:grid-cols-[minmax(0,1fr)_22rem] items-start">
        <form
          className="sheet"
          onSubmit={(event) => {
            event.preventDefault();
            add.reset();
            verify.mutate();
          }}
        >
          <h2 className="sheet-title">An identifier, typed or scanned</h2>
          <div className="p-4 grid gap-4">
            <label className="grid gap-1">
              <span className="text-sm">Scheme</span>
              <select
                className="select w-full truncate pr-10 appearance-none"
                value={name}
                onChange={(event) => {
                  clear();
                  setName(event.target.value);
                }}
              >
                {schemes.data.map((each) => (
                  <option key={each.name} value={each.name}>
                    {each.name} — {each.title}
                  </option>
                ))}
              </select>
            </label>
            <label className="grid gap-1">
              <span className="text-sm">
                Identifier <span className="quiet">(blanks and hyphens are ignored)</span>
              </span>
              <input
                className="input w-full font-mono"
                value={text}
                autoComplete="off"
                spellCheck={false}
                autoFocus
                onChange={(event) => {
                  clear();
                  setText(event.target.value);
                }}
              />
            </label>
            <div className="flex gap-3 flex-wrap">
              <button type="submit" className="btn btn-primary" aria-busy={verify.isPending}>
                Verify it
              </button>
              <button
                type="button"
                className="btn"
                aria-busy={add.isPending}
                onClick={() => {
                  verify.reset();
                  add.mutate();
                }}
              >
                Add the check digit
              </button>
            </div>
            <div aria-live="polite">
              {verify.isError && <Trouble error={verify.error} />}
              {add.isError && <Trouble error={add.error} />}
              {add.isSuccess && (
                <p
                  className="border-l-4 border-success bg-base-200 px-4 py-3 identifier text-xl font-semibold"
                  data-testid="added"
                >
                  {add.data.text}
                </p>
              )}
              {verify.isSuccess && <Verdict result={verify.data} />}
            </div>
          </div>
        </form>
        {scheme && <About scheme={scheme} />}
      </div>
    </>
  );
}

function Verdict({ result }: { result: CheckResult }) {
  const swaps = result.repairs.filter((repair) => repair.slip === "swap");
  const symbols = result.repairs.filter((repair) => repair.slip !== "swap");
  return (
    <div
      className={`border-l-4 bg-base-200 px-4 py-3 grid gap-3 ${result.right ? "border-success" : "border-error"}`}
      data-testid="verdict"
    >
      <p>
        <strong className={result.right ? "text-success" : "text-error"}>{result.right ? "Valid" : "Invalid"}</strong>{" "}
        <span className="identifier">{result.text}</span>
      </p>
      {!result.right && (
        <p className="text-sm">
          {result.expected ? (
            <>
              The check digit is <span className="identifier">{result.given}</span>, expected{" "}
              <span className="identifier">{result.expected}</span>.
            </>
          ) : (
            "This number has no check digit and is not used."
          )}
        </p>
      )}
      {swaps.length > 0 && <Repairs title="Valid, if two neighbours were swapped" texts={swaps} length={2} />}
      {symbols.length > 0 && <Repairs title="Valid, if one symbol is wrong" texts={symbols} length={1} />}
    </div>
  );
}

/** Each repaired text, the symbols that differ marked. */
function Repairs({ title, texts, length }: { title: string; texts: CheckResult["repairs"]; length: number }) {
  return (
    <div>
      <p className="text-sm font-semibold">{title}</p>
      <ul className="flex flex-wrap gap-x-5 gap-y-1 mt-1">
        {texts.map((repair) => (
          <li key={repair.text} className="identifier">
            {repair.text.slice(0, repair.at - 1)}
            <mark className="bg-accent text-accent-content px-0.5">
              {repair.text.slice(repair.at - 1, repair.at - 1 + length)}
            </mark>
            {repair.text.slice(repair.at - 1 + length)}
          </li>
        ))}
      </ul>
    </div>
  );
}

function About({ scheme }: { scheme: SchemeView }) {
  return (
    <section className="sheet" aria-labelledby="about">
      <h2 id="about" className="sheet-title">
        The scheme
      </h2>
      <dl className="p-4 grid gap-3 text-sm">
        <div>
          <dt className="quiet">Published as</dt>
          <dd>{scheme.title}</dd>
        </div>
        <div>
          <dt className="quiet">Reads</dt>
          <dd className="identifier break-all">{scheme.reads}</dd>
        </div>
        <div>
          <dt className="quiet">Check symbols</dt>
          <dd>
            {scheme.length === 1 ? "one symbol" : `${scheme.length} symbols`},{" "}
            {scheme.inFront ? "in front" : "at the end"}
          </dd>
        </div>
        <div>
          <dt className="quiet">Misses</dt>
          <dd>{scheme.misses}</dd>
        </div>
      </dl>
    </section>
  );
}
