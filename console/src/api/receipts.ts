/**
 * The last receipt of each ledger that answered, by the ledger's own name: `ledger.epoch.entry.mac`. They are sent with
 * every request, so that a ledger that was put back to an older state learns of it.
 */
const place = "receipts";
const most = 8;

type Kept = Record<string, string>;

const parts = (receipt: string) => {
  const [ledger = "", epoch = "", entry = ""] = receipt.split(".");
  return { ledger, generation: Number(epoch.split("-")[0]), entry: Number(entry) };
};

const kept = (): Kept => {
  try {
    return JSON.parse(localStorage.getItem(place) ?? "{}") as Kept;
  } catch {
    // Another page of this address may keep what it likes there.
    return {};
  }
};

/** What a request shows; empty where nothing is kept. */
export const shownReceipts = (): string => Object.values(kept()).join(",");

/** The last entry of a ledger of which there is a receipt. */
export const receiptOf = (ledger: string): number | undefined => {
  const receipt = kept()[ledger];
  return receipt === undefined ? undefined : parts(receipt).entry;
};

/** Keeps the receipt of an answer, unless it is of an older state than the one that is kept. */
export function keepReceipt(receipt: string | null): void {
  if (!receipt) return;
  const all = kept();
  const now = parts(receipt);
  const before = all[now.ledger];
  if (before !== undefined) {
    const was = parts(before);
    if (now.generation < was.generation || (now.generation === was.generation && now.entry < was.entry)) return;
    if (before === receipt) return;
  }
  const others = Object.entries(all).filter(([ledger]) => ledger !== now.ledger);
  localStorage.setItem(place, JSON.stringify(Object.fromEntries([...others.slice(1 - most), [now.ledger, receipt]])));
}
