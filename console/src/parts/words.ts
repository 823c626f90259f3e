const numbers = new Intl.NumberFormat("en-GB");

export const count = (value: number): string => numbers.format(value);

/** An instant to the minute, in the reader's time zone. */
export const when = (instant: string): string =>
  new Date(instant).toLocaleString("en-GB", {
    day: "numeric",
    month: "short",
    year: "numeric",
    hour: "2-digit",
    minute: "2-digit",
  });

/** How many are left, where that can be told. */
export const leftText = (left: number | undefined, order: string): string =>
  left !== undefined ? count(left) : order === "repeating" ? "comes round" : "by field";

export const span = (first?: string, last?: string): string =>
  !first ? "" : first === last ? first : `${first} … ${last}`;

export const rangeText = (range: { first: number; last: number; step: number }): string =>
  `${range.first} to ${range.last}${range.step === 1 ? "" : ` by ${range.step}`}`;
