const numbers = new Intl.NumberFormat("en-GB");

export const count = (value: number): string => numbers.format(value);

/** A path into what was written, with its indices from 1, as people count. */
export const placed = (path: string): string => path.replace(/\[(\d+)\]/g, (_, index) => `[${Number(index) + 1}]`);

/** An instant to the minute, as all other output has it. */
export const when = (instant: string): string =>
  `${new Date(instant).toISOString().slice(0, 16).replace("T", " ")} UTC`;

/** How many are left, where that can be told. */
export const leftText = (left: number | undefined, order: string): string =>
  left !== undefined ? count(left) : order === "repeating" ? "repeats" : "depends on fields";

export const span = (first?: string, last?: string): string =>
  !first ? "" : first === last ? first : `${first} … ${last}`;

export const rangeText = (range: { first: number; last: number; step: number }): string =>
  `${range.first} to ${range.last}${range.step === 1 ? "" : ` by ${range.step}`}`;
