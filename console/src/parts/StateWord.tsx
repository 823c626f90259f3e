import type { SeriesView } from "../api/client.ts";

/** The state of a series in a word, coloured as well. */
export function StateWord({ series }: { series: SeriesView }) {
  const [word, look] = series.retired
    ? ["retired", "badge-ghost"]
    : series.state === "exhausted"
      ? ["exhausted", "badge-error"]
      : series.state === "closed"
        ? ["no active range", "badge-error"]
        : series.low
          ? ["low", "badge-warning"]
          : series.warnings.length > 0
            ? ["closes soon", "badge-warning"]
            : ["active", "badge-ghost"];
  return <span className={`badge badge-sm whitespace-nowrap ${look}`}>{word}</span>;
}
