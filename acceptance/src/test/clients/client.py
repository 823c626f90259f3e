"""A day's work by the client that a generator made. Arguments: the address, a token, a folder."""

import datetime
import pathlib
import re
import sys

from openapi_client import (
    AccountsApi,
    AllocationRequest,
    ApiClient,
    AuditRequest,
    Configuration,
    DefinitionsApi,
    GrantView,
    LedgerApi,
    NumbersApi,
    OpeningRequest,
    RangeForm,
    RecordsApi,
    SavingRequest,
    SeriesForm,
    SettleRequest,
    TablesApi,
    TokenRequest,
)

address, first, folder = sys.argv[1], sys.argv[2], pathlib.Path(sys.argv[3])


def by(token):
    return ApiClient(Configuration(host=address, access_token=token))


accounts = AccountsApi(by(first))
rights = ["define", "allocate", "hold", "void", "read", "audit"]
accounts.open_account(
    OpeningRequest(
        name="python-client", sort="program", grants=[GrantView(right=right, scope="all") for right in rights]
    )
)
known = by(accounts.issue_token("python-client", TokenRequest(name="generated")).token)
print("token")

defined = DefinitionsApi(known).define_series(
    "python-mark",
    SeriesForm(
        key="python-mark",
        pattern="PM{count 3}",
        ranges=[RangeForm(first=1, last=999, opens=datetime.date(2026, 1, 1))],
    ),
    if_none_match="*",
)
print("defined", defined.pattern)

numbers = NumbersApi(known)
one = AllocationRequest(date=datetime.date(2026, 3, 2), reference="order 1")
for _ in range(2):
    taken = numbers.allocate_with_http_info("python-mark", idempotency_key="python-1", allocation_request=one)
    print("allocated", taken.status_code, "[" + ", ".join(taken.data.identifiers) + "]", taken.data.var_date)
held = numbers.allocate("python-mark", allocation_request=AllocationRequest(hold="PT15M"))
print("confirmed", numbers.confirm("python-mark", SettleRequest(identifiers=[held.first])).state)
spoiled = SettleRequest(identifiers=[held.first], reason="spoiled")
print("voided", numbers.void_numbers("python-mark", spoiled).quantity)

ledger = LedgerApi(known)
print("found", ledger.find_identifier("pm002")[0].state)
print("audited", ledger.audit(AuditRequest(series="python-mark")).findings)

records = RecordsApi(known)
record = records.save_record(
    SavingRequest(kind="component", unit="works", fields={"name": "Pallet", "group": "WC", "kind": "PA"}),
    idempotency_key="python-2",
).record.record
print("record", records.show_record(record).record.kind)
up = bytes([0, 0xFF, 13, 10, 0x80])
records.attach_file(record, "up.bin", unit="works", body=up)
print("file", str(bytes(records.fetch_file(record, 1)) == up).lower())

table = b"number,name,group,kind\n,a,WC,PA\n,b,WC,PA\n"
filled = TablesApi(known).fill_table("component", "works", "t.csv", idempotency_key="python-3", body=table)
rows = bytes(filled).decode().splitlines()
print("table", re.sub("[0-9]{4}", "0000", rows[1]), len(rows))
