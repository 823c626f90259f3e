-- What became of a number after it was given.
-- The entry that changed the state last; null where it is as it was given.
alter table allocation add column changed_seq bigint;
-- The block it belongs to, by the entry that made it; null for a number that stands alone.
alter table allocation add column block_seq bigint;
alter table allocation add column held_until timestamp(6);
-- Whether it was typed while the counter had not come so far; null where not.
alter table allocation add column ahead boolean;
update allocation set block_seq = seq where text is null and state = 1;

-- Stretches of a lane do not overlap, so that their last positions tell them apart as well as the first; and by the last the one that holds a position is found: it
-- is the first that ends there or behind. (Downwards, H2 does not go along an index.)
alter table allocation drop constraint allocation_position;
alter table allocation add constraint allocation_position unique (lane_id, last_position);

-- The allocations that the writer keeps in memory: held, returned, or typed ahead of the counter.
create table watched (
    lane_id int not null,
    last_position bigint not null,
    primary key (lane_id, last_position)
);

-- How a position read before it was given anew.
create table retired (
    lane_id int not null,
    position bigint not null,
    seq bigint not null,
    version int not null,
    business_date date not null,
    fields varchar(2000),
    held_until timestamp(6),
    ahead boolean,
    text varchar(400) not null,
    text_key varchar(400) not null,
    -- The entry that gave it anew.
    retired_seq bigint not null,
    primary key (lane_id, position, seq)
);
create index retired_text on retired (text_key);

-- Stretches of blocks, as they were taken or handed on; what became of each number in them stands in allocation.
create table block_stretch (
    block_seq bigint not null,
    lane_id int not null,
    first_position bigint not null,
    last_position bigint not null,
    series_id int not null,
    version int not null,
    business_date date not null,
    fields varchar(2000),
    -- The block that it was a part of.
    parent_seq bigint,
    primary key (block_seq, lane_id, first_position)
);
insert into block_stretch
    select a.seq, b.lane_id, b.first_position, a.last_position, b.series_id, b.version, b.business_date, b.fields, null
    from block b join allocation a on a.lane_id = b.lane_id and a.first_position = b.first_position;
drop table block;

-- Stretches that became void after they had been given. A void number stays void.
create table voided (
    lane_id int not null,
    first_position bigint not null,
    last_position bigint not null,
    seq bigint not null,
    state tinyint not null,
    first_text varchar(400) not null,
    last_text varchar(400) not null,
    primary key (seq, lane_id, first_position)
);

create table closed_period (
    seq bigint primary key,
    scope tinyint not null,
    name varchar(64) not null,
    from_date date not null,
    to_date date not null,
    totals character large object not null,
    -- The entry that opened it again.
    reopened_seq bigint
);

-- Why, for whom: what the one who acted had to say.
alter table entry add column note varchar(500);
-- Of an act on numbers that were given: what they are now, and the first and the last of them.
alter table entry add column state tinyint;
alter table entry add column first_text varchar(400);
alter table entry add column last_text varchar(400);
