// Writes what a series can say, as the description of the interface has it, for the form that edits one.
import { readFileSync, writeFileSync } from "node:fs";

const { properties } = JSON.parse(readFileSync("openapi.json", "utf8")).components.schemas.SeriesForm;

const kind = (schema) =>
  schema.enum ? "word" : ({ string: "text", integer: "whole", boolean: "flag" }[schema.type] ?? "group");

const lines = Object.entries(properties).map(
  ([name, schema]) =>
    `  ${JSON.stringify(name)}: ${JSON.stringify({
      kind: kind(schema),
      inFiles: schema["x-name-in-files"] ?? name,
      words: schema.enum ?? [],
      usual: schema["x-usual"] ?? null,
      meaning: schema.description,
    })},`,
);
writeFileSync(
  "src/api/seriesProperties.ts",
  ["export const seriesProperties = {", ...lines, "} as const;", ""].join("\n"),
);
