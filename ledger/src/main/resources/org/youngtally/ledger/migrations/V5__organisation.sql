-- Units, kinds, routes and accounts, one row for each time that one was defined or changed; the newest counts.
create table organisation_part (
    -- unit, kind, route or account
    sort varchar(8) not null,
    name varchar(1000) not null,
    seq bigint not null,
    -- Its place among those of the entry, from 0: they are shown in the order in which they were written.
    place int not null,
    -- Null from when it was taken away.
    definition character large object,
    primary key (sort, name, seq)
);
create index organisation_part_seq on organisation_part (seq);

-- What the numbers were taken for: the kind of record and the unit with a blank between, a hyphen for one that is not known; null where neither is.
alter table entry add column purpose varchar(130);
