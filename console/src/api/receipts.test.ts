// @vitest-environment jsdom
import { beforeEach, expect, test } from "vitest";
import { keepReceipt, receiptOf, shownReceipts } from "./receipts.ts";

beforeEach(() => localStorage.clear());

test("the newest receipt of a ledger is shown", () => {
  keepReceipt("aaaa.0-11.97.mac");
  keepReceipt("aaaa.0-22.98.mac");
  expect(shownReceipts()).toBe("aaaa.0-22.98.mac");
});

test("an older receipt does not replace a newer one", () => {
  keepReceipt("aaaa.0-11.98.mac");
  keepReceipt("aaaa.0-11.71.mac");
  expect(receiptOf("aaaa")).toBe(98);
});

test("behind a loss that was stated a lower entry is the newest", () => {
  keepReceipt("aaaa.0-11.98.mac");
  keepReceipt("aaaa.1-33.72.mac");
  expect(receiptOf("aaaa")).toBe(72);
});

test("receipts of several ledgers are kept, the eight newest", () => {
  for (let i = 0; i < 10; i++) keepReceipt(`ledger${i}.0-11.5.mac`);
  expect(shownReceipts().split(",")).toHaveLength(8);
});
