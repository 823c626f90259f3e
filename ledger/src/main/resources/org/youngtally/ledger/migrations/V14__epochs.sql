-- The epochs of the ledger, each by the entry that began it. A receipt names the one in which its entry was written.
create table if not exists epoch (
    seq bigint not null primary key,
    epoch varchar(40) not null
);
-- Of which series it was stated what a lost state of the ledger may have issued, and the last entry that stated it.
create table if not exists series_stated (
    series varchar(200) not null primary key,
    seq bigint not null
);
