-- The epochs of the ledger, each by the entry that began it. A receipt names the one in which its entry was written.
create table if not exists epoch (
    seq bigint not null primary key,
    epoch varchar(40) not null
);
