-- The last journal entry that the tables hold; written in the transaction of its effects.
create table applied (
    id tinyint primary key check (id = 1),
    seq bigint not null,
    hash char(64) not null
);
insert into applied values (1, 0, '0000000000000000000000000000000000000000000000000000000000000000');

create table account (
    id int primary key,
    name varchar(100) not null unique
);

create table namespace (
    id int primary key,
    name varchar(64) not null unique
);

create table series (
    id int primary key,
    name varchar(64) not null unique,
    namespace_id int not null references namespace,
    version int not null
);

create table series_version (
    series_id int not null references series,
    version int not null,
    seq bigint not null,
    definition varchar(1000000) not null,
    primary key (series_id, version)
);

-- One counter. Every position below next_position is held by an allocation.
create table lane (
    id int primary key,
    series_id int not null references series,
    range_id int not null,
    period varchar(32) not null,
    next_position bigint not null,
    latest_date date,
    newest_seq bigint,
    unique (series_id, range_id, period)
);

-- The history: one row an act. Spans say what it took, as lane:first-last, separated by blanks.
create table entry (
    seq bigint primary key,
    at timestamp(6) not null,
    account_id int not null,
    kind tinyint not null,
    series_id int,
    business_date date,
    quantity bigint,
    reference varchar(200),
    reference_live boolean,
    request_key varchar(200),
    digest varchar(22),
    spans varchar(1000000)
);
create unique index entry_request on entry (request_key, account_id);
create unique index entry_reference on entry (reference, series_id, reference_live);
create index entry_series on entry (series_id, seq);

-- Stretches of positions of a lane in one state. A single number is a stretch of one with its text; a block keeps no texts.
create table allocation (
    lane_id int not null,
    first_position bigint not null,
    last_position bigint not null,
    state tinyint not null,
    seq bigint not null,
    version int not null,
    business_date date not null,
    text varchar(400),
    text_key varchar(400),
    namespace_id int,
    constraint allocation_position unique (lane_id, first_position)
);
create unique index allocation_text on allocation (text_key, namespace_id);

-- The blocks among the allocations, to look an identifier up in.
create table block (
    lane_id int not null,
    first_position bigint not null,
    series_id int not null,
    version int not null,
    business_date date not null,
    primary key (lane_id, first_position)
);
