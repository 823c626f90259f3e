import type { TableLane } from "../../api/client.ts";
import { count } from "../../parts/words.ts";

const WIDTH = 720;
const HEIGHT = 84;
const BARS = 56;
const STRIP = 8;
const LEAST = 1.5;

/** Where the numbers of a lane lie between the lowest and the highest: how dense, and where the gaps are. */
export function ValuePicture({ lane }: { lane: TableLane }) {
  const low = lane.lowest.value;
  const span = Math.max(1, lane.highest.value - low);
  const most = Math.max(1, ...lane.density);
  const step = WIDTH / lane.density.length;
  const x = (value: number) => ((value - low) / span) * WIDTH;
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="w-full h-auto text-base-content"
      role="img"
      aria-label={`${count(lane.different)} numbers from ${lane.lowest.text} to ${lane.highest.text}; ${count(lane.missing)} missing in ${count(lane.gaps.length + lane.moreGaps)} gaps`}
    >
      {lane.density.map((numbers, at) => {
        const height = numbers === 0 ? 0 : Math.max(2, (numbers / most) * BARS);
        return (
          <rect
            key={at}
            x={at * step + step * 0.08}
            width={Math.max(LEAST, step * 0.84)}
            y={BARS - height}
            height={height}
            fill="var(--color-primary)"
          >
            <title>{count(numbers)}</title>
          </rect>
        );
      })}
      <rect x="0" width={WIDTH} y={BARS + 2} height={STRIP} fill="var(--color-base-300)" />
      {lane.gaps.map((gap) => (
        <rect
          key={gap.low}
          x={Math.min(WIDTH - LEAST, x(gap.low))}
          width={Math.max(LEAST, x(gap.high) - x(gap.low))}
          y={BARS + 2}
          height={STRIP}
          fill="var(--color-error)"
        >
          <title>{gap.from === gap.to ? gap.from : `${gap.from} to ${gap.to}`}</title>
        </rect>
      ))}
      <text x="0" y={HEIGHT - 4} fontSize="12" fill="currentColor">
        {lane.lowest.text}
      </text>
      <text x={WIDTH} y={HEIGHT - 4} fontSize="12" textAnchor="end" fill="currentColor">
        {lane.highest.text}
      </text>
    </svg>
  );
}
