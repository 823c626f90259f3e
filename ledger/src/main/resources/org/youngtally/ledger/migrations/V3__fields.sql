-- What sets a lane apart from others of its range: periods of time, fields of the record.
alter table lane alter column period varchar(400) not null;
-- How many of the positions below the next one were passed over, because their values are never given.
alter table lane add column skipped bigint default 0 not null;

-- What the record gave for the fields of the series, as a JSON object; null where the series takes none.
alter table allocation add column fields varchar(2000);
alter table block add column fields varchar(2000);
alter table entry add column fields varchar(2000);

create table codebook_version (
    name varchar(64) not null,
    version int not null,
    seq bigint not null,
    definition character large object not null,
    primary key (name, version)
);

-- A namespace that was never defined has version 0.
alter table namespace add column title varchar(200);
alter table namespace add column repeats boolean default false not null;
alter table namespace add column version int default 0 not null;
alter table namespace add column seq bigint;

-- References that stand for an act now. Most acts have none, and pay for no index entry.
create table live_reference (
    reference varchar(200) not null,
    series_id int not null,
    seq bigint not null,
    primary key (reference, series_id)
);
insert into live_reference select reference, series_id, seq from entry where reference_live;
drop index entry_reference;
alter table entry drop column reference_live;
