import { useState } from "react";
import { Link } from "react-router";
import { useSeriesList } from "../../api/queries.ts";
import { Nothing, Trouble, Waiting } from "../../parts/States.tsx";
import { SeriesTable } from "./SeriesTable.tsx";

export function SeriesList() {
  const [retired, setRetired] = useState(false);
  const series = useSeriesList(retired);
  return (
    <>
      <div className="flex items-center justify-between mb-5">
        <h1 className="text-2xl font-semibold">Series</h1>
        <div className="flex items-center gap-4">
          <label className="flex items-center gap-2 text-sm">
            <input
              type="checkbox"
              className="checkbox checkbox-sm"
              checked={retired}
              onChange={(event) => setRetired(event.target.checked)}
            />
            include retired
          </label>
          <Link className="btn btn-primary btn-sm" to="/new">
            New series
          </Link>
        </div>
      </div>
      <section className="sheet">
        {series.isPending && <Waiting />}
        {series.isError && <Trouble error={series.error} />}
        {series.data?.length === 0 && (
          <Nothing>
            No series are defined. Define the first one, or apply a file with{" "}
            <span className="identifier">youngtally apply FILE</span>.
          </Nothing>
        )}
        {series.data && series.data.length > 0 && <SeriesTable series={series.data} wide />}
      </section>
    </>
  );
}
