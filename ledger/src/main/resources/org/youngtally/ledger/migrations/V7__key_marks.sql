-- By what the key of a request is found again: the first 128 bits of SHA-256 of the account's name, a line feed and the key.
alter table entry add column key_mark uuid;
update entry set key_mark = cast(substring(hash('SHA-256', stringtoutf8((select account.name from account where account.id = entry.account_id) || char(10) || request_key)) from 1 for 16) as uuid) where request_key is not null;
drop index entry_request;
create unique index entry_key_mark on entry (key_mark);
