import { Link } from "react-router";
import type { CalendarView } from "../../api/client.ts";
import { useCalendar, useStatus } from "../../api/queries.ts";
import { Nothing, Trouble, Waiting } from "../../parts/States.tsx";

const DAY = 86_400_000;
const days = (date: string) => Date.parse(date) / DAY;

/** One series: its ranges as bars on a line of time, the holes between them in red, and the same in words. */
function Line({ series, from, to, today }: { series: CalendarView; from: number; to: number; today: number }) {
  const at = (date: number) => `${((Math.min(Math.max(date, from), to) - from) / (to - from)) * 100}%`;
  const bar = (first: string, last: string | undefined) => ({
    left: at(days(first)),
    right: `calc(100% - ${at(last ? days(last) + 1 : to)})`,
  });
  return (
    <li className="px-4 py-3 grid gap-1.5 md:grid-cols-[13rem_minmax(0,1fr)] md:gap-4 items-center">
      <Link className="link font-medium" to={`/series/${series.series}`}>
        {series.title}
      </Link>
      <div>
        <div className="relative h-5 bg-base-200 rounded-field overflow-hidden" aria-hidden="true">
          {series.ranges.map((range) => (
            <div
              key={range.id}
              className="absolute inset-y-0 bg-primary border-r-2 border-base-100"
              style={bar(range.opens, range.closes)}
            />
          ))}
          {series.holes.map((hole) => (
            <div
              key={hole.from}
              className="absolute inset-y-0 bg-error"
              style={{ ...bar(hole.from, hole.to), minWidth: "4px" }}
            />
          ))}
          <div className="absolute inset-y-0 w-0.5 bg-accent" style={{ left: at(today) }} />
        </div>
        <p className="text-sm quiet mt-1">
          {series.ranges
            .map(
              (range) =>
                `${range.first} to ${range.last} ${range.closes ? `from ${range.opens} to ${range.closes}` : `from ${range.opens} on`}`,
            )
            .join("; ")}
          {series.holes.map((hole) => (
            <strong key={hole.from} className="text-error">
              ; uncovered dates {hole.from} to {hole.to}
            </strong>
          ))}
          {series.ends && <strong className="text-warning">; uncovered after {series.ends}</strong>}
        </p>
      </div>
    </li>
  );
}

/** What opens and closes when. */
export function CalendarPage() {
  const calendar = useCalendar();
  const status = useStatus();
  if (calendar.isPending || status.isPending) return <Waiting />;
  if (calendar.isLoadingError) return <Trouble error={calendar.error} />;
  const today = days(status.data?.today ?? new Date().toISOString().slice(0, 10));
  const dates = calendar.data
    .flatMap((series) => series.ranges.flatMap((range) => [range.opens, range.closes ?? range.opens]))
    .map(days);
  const year = (date: number) => new Date(date * DAY).getUTCFullYear();
  const first = Math.min(year(today), ...dates.map(year));
  const last = Math.min(first + 15, Math.max(year(today) + 1, ...dates.map(year)));
  const from = days(`${first}-01-01`);
  const to = days(`${last + 1}-01-01`);
  return (
    <>
      <h1 className="text-2xl font-semibold mb-1">Calendar</h1>
      <p className="quiet mb-5">
        What opens and closes when, {first} to {last}. The vertical line is today; uncovered dates are red.
      </p>
      <section className="sheet" aria-label="Ranges by series">
        {calendar.data.length === 0 ? (
          <Nothing>No series are defined.</Nothing>
        ) : (
          <>
            <div
              className="hidden md:grid grid-cols-[13rem_minmax(0,1fr)] gap-4 px-4 pt-3 text-sm quiet"
              aria-hidden="true"
            >
              <span />
              <div className="relative h-5">
                {Array.from({ length: last - first + 1 }, (_, i) => (
                  <span
                    key={i}
                    className="absolute"
                    style={{ left: `${((days(`${first + i}-01-01`) - from) / (to - from)) * 100}%` }}
                  >
                    {first + i}
                  </span>
                ))}
              </div>
            </div>
            <ul className="divide-y divide-base-300">
              {calendar.data.map((series) => (
                <Line key={series.series} series={series} from={from} to={to} today={today} />
              ))}
            </ul>
          </>
        )}
      </section>
    </>
  );
}
