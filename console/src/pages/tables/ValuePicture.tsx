import type { TableLane } from "../../api/client.ts";
import { count } from "../../parts/words.ts";

/** The picture is as wide as there is room, but its bars are not wider than this, in pixels. */
const WIDEST_BAR = 24;
const STRETCH = 12;
const BARS = 56;
const STRIP = 8;

/** Where the numbers of a lane lie between the lowest and the highest: how dense, and where the gaps are. */
export function ValuePicture({ lane }: { lane: TableLane }) {
  const low = lane.lowest.value;
  const most = Math.max(1, ...lane.density);
  const width = lane.density.length * STRETCH;
  // The numbers of the lane lie at equal distances, missing ones among them.
  const numbers = lane.different + lane.missing;
  const unit = STRETCH / lane.stretch;
  const x = (value: number) =>
    numbers === 1 ? 0 : ((value - low) / (lane.highest.value - low)) * (numbers - 1) * unit;
  return (
    <figure style={{ maxWidth: lane.density.length * WIDEST_BAR, minWidth: "10rem" }}>
      <svg
        viewBox={`0 0 ${width} ${BARS + 2 + STRIP}`}
        preserveAspectRatio="none"
        className="w-full h-18"
        role="img"
        aria-label={`${count(lane.different)} numbers from ${lane.lowest.text} to ${lane.highest.text}; ${count(lane.missing)} missing in ${count(lane.gaps.length + lane.moreGaps)} gaps`}
      >
        {lane.density.map((there, at) => {
          const height = there === 0 ? 0 : Math.max(2, (there / most) * BARS);
          return (
            <rect
              key={at}
              x={at * STRETCH + STRETCH * 0.08}
              width={STRETCH * 0.84}
              y={BARS - height}
              height={height}
              fill="var(--color-primary)"
            >
              <title>{count(there)}</title>
            </rect>
          );
        })}
        <rect x="0" width={width} y={BARS + 2} height={STRIP} fill="var(--color-base-300)" />
        {lane.gaps.map((gap) => (
          <rect
            key={gap.low}
            x={x(gap.low)}
            width={Math.max(1, x(gap.high) - x(gap.low) + unit)}
            y={BARS + 2}
            height={STRIP}
            fill="var(--color-error)"
          >
            <title>{gap.from === gap.to ? gap.from : `${gap.from} to ${gap.to}`}</title>
          </rect>
        ))}
      </svg>
      <figcaption className="flex justify-between text-xs identifier">
        <span>{lane.lowest.text}</span>
        <span>{lane.highest.text}</span>
      </figcaption>
    </figure>
  );
}
