import { count } from "./words.ts";

/** How far a lane is used: a ruler with ten marks, filled from the left. */
export function Ruler({ given, size, low }: { given: number; size: number; low?: boolean }) {
  const share = size === 0 ? 0 : given / size;
  const width = given === 0 ? 0 : Math.max(2, share * 200);
  return (
    <svg
      viewBox="0 0 200 12"
      preserveAspectRatio="none"
      className="h-3 w-full min-w-20"
      role="img"
      aria-label={`${count(given)} of ${count(size)} issued`}
    >
      <rect x="0" y="3" width="200" height="9" className="fill-base-300" />
      <rect x="0" y="3" width={width} height="9" className={low ? "fill-warning" : "fill-primary"} />
      {Array.from({ length: 11 }, (_, i) => (
        <rect
          key={i}
          x={Math.min(199, i * 20)}
          y={i % 5 === 0 ? 0 : 2}
          width="1"
          height={i % 5 === 0 ? 12 : 10}
          className="fill-base-content"
          opacity="0.55"
        />
      ))}
    </svg>
  );
}
