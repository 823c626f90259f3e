import type { LabelJobSummary } from "../../api/client.ts";

/** How many labels are in each state, in the order of their lives. */
export const states = (job: LabelJobSummary): [string, number][] => Object.entries(job.states);

/** How a state is marked. */
export const colour: Record<string, string> = {
  waiting: "badge-ghost",
  sent: "badge-info badge-soft",
  printed: "badge-success badge-soft",
  unconfirmed: "badge-warning badge-soft",
  spoiled: "badge-error badge-soft",
  cancelled: "badge-ghost",
};
