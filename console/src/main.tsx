import { useEffect, useState } from "react";
import { createRoot } from "react-dom/client";
import type { components } from "./api/types.ts";

function Overview() {
  const [series, setSeries] = useState<components["schemas"]["SeriesView"][]>([]);
  useEffect(() => void fetch("/api/v1/series").then((answer) => answer.json()).then(setSeries), []);
  return <ul>{series.map((each) => <li key={each.key}>{each.title}: {each.next?.[0]}</li>)}</ul>;
}

createRoot(document.getElementById("root")!).render(<Overview />);
