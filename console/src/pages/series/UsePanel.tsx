import { useState } from "react";
import type { DayView, SeriesView } from "../../api/client.ts";
import { useForecast, useUse } from "../../api/queries.ts";
import { Nothing, Trouble, Waiting } from "../../parts/States.tsx";
import { count } from "../../parts/words.ts";

const DAY = 86_400_000;
const WIDTH = 720;
const HEIGHT = 130;
const LEFT = 44;
const BOTTOM = 18;

/** A round number at or above the highest bar. */
const ceiling = (highest: number): number => {
  const power = 10 ** Math.floor(Math.log10(Math.max(1, highest)));
  return [1, 2, 5, 10].map((step) => step * power).find((step) => step >= highest) ?? highest;
};

function Plot({ days, today, data }: { days: number; today: string; data: DayView[] }) {
  const end = Date.parse(today);
  const top = ceiling(Math.max(1, ...data.map((day) => day.quantity)));
  const step = (WIDTH - LEFT) / days;
  const x = (day: string) => LEFT + (days - 1 - Math.round((end - Date.parse(day)) / DAY)) * step;
  const height = (quantity: number) => (quantity / top) * (HEIGHT - BOTTOM - 8);
  const marks = [0, Math.round((days - 1) / 2), days - 1].map((back) =>
    new Date(end - back * DAY).toISOString().slice(0, 10),
  );
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="w-full h-auto text-base-content"
      role="img"
      aria-label={`Numbers issued on each of the last ${days} days; ${count(data.reduce((sum, day) => sum + day.quantity, 0))} in all, ${count(Math.max(0, ...data.map((day) => day.quantity)))} on the busiest day`}
    >
      {[0, top / 2, top].filter(Number.isInteger).map((quantity) => (
        <g key={quantity}>
          <line
            x1={LEFT}
            x2={WIDTH}
            y1={HEIGHT - BOTTOM - height(quantity)}
            y2={HEIGHT - BOTTOM - height(quantity)}
            stroke="var(--color-base-300)"
          />
          <text
            x={LEFT - 6}
            y={HEIGHT - BOTTOM - height(quantity) + 4}
            fontSize="11"
            textAnchor="end"
            fill="currentColor"
          >
            {count(quantity)}
          </text>
        </g>
      ))}
      {data.map((day) => (
        <rect
          key={day.day}
          x={x(day.day) + step * 0.1}
          width={Math.max(1.5, step * 0.8)}
          y={HEIGHT - BOTTOM - height(day.quantity)}
          height={height(day.quantity)}
          fill="var(--color-accent)"
        >
          <title>{`${day.day}: ${count(day.quantity)}`}</title>
        </rect>
      ))}
      {marks.map((day, i) => (
        <text
          key={day}
          x={x(day) + step / 2}
          y={HEIGHT - 4}
          fontSize="11"
          textAnchor={i === 0 ? "end" : i === 1 ? "middle" : "start"}
          fill="currentColor"
        >
          {day}
        </text>
      ))}
    </svg>
  );
}

/** How a series was used over time, and when what is left runs out if it goes on so. */
export function UsePanel({ series }: { series: SeriesView }) {
  const [days, setDays] = useState(30);
  const use = useUse(series.key, days);
  const forecast = useForecast(series.key);
  const ends = forecast.data?.ends;
  return (
    <section className="sheet" aria-labelledby="use">
      <div className="sheet-title flex flex-wrap items-center justify-between gap-2">
        <h2 id="use">Use over time</h2>
        <label className="text-sm font-normal flex items-center gap-2">
          Last{" "}
          <select
            className="select select-xs w-24"
            value={days}
            onChange={(event) => setDays(Number(event.target.value))}
          >
            {[7, 30, 90, 365].map((each) => (
              <option key={each} value={each}>
                {each} days
              </option>
            ))}
          </select>
        </label>
      </div>
      <div className="p-4 grid gap-3">
        {use.isPending && <Waiting />}
        {use.isError && <Trouble error={use.error} />}
        {use.data?.length === 0 && <Nothing>No numbers were issued in this period.</Nothing>}
        {use.data && use.data.length > 0 && forecast.data && (
          <Plot days={days} today={forecast.data.date} data={use.data} />
        )}
        {forecast.isError && <Trouble error={forecast.error} />}
        {forecast.data?.left !== undefined && (
          <ul className="text-sm flex flex-wrap gap-x-8 gap-y-1" aria-label="Forecast of when the series is exhausted">
            {forecast.data.rates.map((rate) => (
              <li key={rate.days}>
                <span className="quiet">At the rate of the last {rate.days} days:</span>{" "}
                {rate.used === 0 ? (
                  "none issued"
                ) : rate.runsOut ? (
                  <strong className="text-warning">exhausted on {rate.runsOut}</strong>
                ) : ends ? (
                  `not before ${ends}, its last date`
                ) : (
                  "not for many years"
                )}
              </li>
            ))}
          </ul>
        )}
      </div>
    </section>
  );
}
