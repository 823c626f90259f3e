import {
  AccountsApi,
  Configuration,
  DefinitionsApi,
  GrantViewRightEnum,
  LedgerApi,
  NumbersApi,
  OpeningRequestSortEnum,
  RecordsApi,
  TablesApi,
} from "./generated/index.js";

declare const process: { argv: string[] };

/** A day's work by the client that a generator made. Arguments: the address, a token. */
const [basePath, first] = process.argv.slice(2) as [string, string];
const by = (accessToken: string) => new Configuration({ basePath, accessToken });
const accounts = new AccountsApi(by(first));
await accounts.openAccount({
  openingRequest: {
    name: "typescript-client",
    sort: OpeningRequestSortEnum.Program,
    grants: Object.values(GrantViewRightEnum).map((right) => ({ right, scope: "all" })),
  },
});
const { token } = await accounts.issueToken({
  account: "typescript-client",
  tokenRequest: { name: "generated" },
});
const known = by(token);
console.log("token");

const defined = await new DefinitionsApi(known).defineSeries({
  series: "typescript-mark",
  ifNoneMatch: "*",
  seriesForm: {
    key: "typescript-mark",
    pattern: "TM{count 3}",
    ranges: [{ first: 1, last: 999, opens: new Date("2026-01-01") }],
  },
});
console.log(`defined ${defined.pattern}`);

const numbers = new NumbersApi(known);
for (let i = 0; i < 2; i++) {
  const taken = await numbers.allocateRaw({
    series: "typescript-mark",
    idempotencyKey: "typescript-1",
    allocationRequest: { date: new Date("2026-03-02"), reference: "order 1" },
  });
  const { identifiers, date } = await taken.value();
  console.log(`allocated ${taken.raw.status} [${identifiers}] ${date.toISOString().substring(0, 10)}`);
}
const held = await numbers.allocate({ series: "typescript-mark", allocationRequest: { hold: "PT15M" } });
const confirmed = await numbers.confirm({
  series: "typescript-mark",
  settleRequest: { identifiers: [held.first] },
});
console.log(`confirmed ${confirmed.state}`);
const voided = await numbers.voidNumbers({
  series: "typescript-mark",
  settleRequest: { identifiers: [held.first], reason: "spoiled" },
});
console.log(`voided ${voided.quantity}`);

const ledger = new LedgerApi(known);
const found = await ledger.findIdentifier({ text: "tm002" });
console.log(`found ${found[0]?.state}`);
const audited = await ledger.audit({ auditRequest: { series: "typescript-mark" } });
console.log(`audited [${audited.findings}]`);

const records = new RecordsApi(known);
const saved = await records.saveRecord({
  idempotencyKey: "typescript-2",
  savingRequest: { kind: "component", unit: "works", fields: { name: "Pallet", group: "WC", kind: "PA" } },
});
const record = saved.record.record;
const shown = await records.showRecord({ record });
console.log(`record ${shown.record.kind}`);
const up = new Uint8Array([0, 0xff, 13, 10, 0x80]);
await records.attachFile({ record, name: "up.bin", unit: "works", body: new Blob([up]) });
const down = new Uint8Array(await (await records.fetchFile({ record, place: 1 })).arrayBuffer());
console.log(`file ${down.length === up.length && down.every((byte, i) => byte === up[i])}`);

const filled = await new TablesApi(known).fillTable({
  kind: "component",
  unit: "works",
  name: "t.csv",
  idempotencyKey: "typescript-3",
  body: new Blob(["number,name,group,kind\n,a,WC,PA\n,b,WC,PA\n"]),
});
const rows = (await filled.text()).trimEnd().split("\n");
console.log(`table ${rows[1]?.replace(/[0-9]{4}/, "0000")} ${rows.length}`);
