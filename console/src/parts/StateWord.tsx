import type { SeriesView } from "../api/client.ts";

/** The state of a series in a word, coloured as well. */
export function StateWord({ series }: { series: SeriesView }) {
  const [word, look] =
    series.state === "exhausted"
      ? ["run out", "badge-error"]
      : series.state === "closed"
        ? ["no range serves today", "badge-error"]
        : series.low
          ? ["runs low", "badge-warning"]
          : series.warnings.length > 0
            ? ["closes soon", "badge-warning"]
            : ["serving", "badge-ghost"];
  return <span className={`badge badge-sm whitespace-nowrap ${look}`}>{word}</span>;
}
