-- Records as they stand now; every version of them is kept beside.
create table kept_record (
    id bigint primary key,
    kind varchar(64) not null,
    series_id int not null,
    text varchar(400) not null,
    deleted boolean not null,
    version int not null
);
create index kept_record_kind on kept_record (kind, id);

create table record_version (
    record_id bigint not null,
    version int not null,
    seq bigint not null,
    content varchar(1000000) not null,
    primary key (record_id, version)
);
create index record_version_seq on record_version (seq);

-- The units in which a record stands, and by what unit they are listed.
create table record_unit (
    unit varchar(64) not null,
    record_id bigint not null,
    primary key (unit, record_id)
);
create index record_unit_record on record_unit (record_id);

-- Every identifier that a record ever had. One that was given back with a deleted record can be another's since.
create table record_number (
    text_key varchar(400) not null,
    series_id int not null,
    record_id bigint not null,
    primary key (text_key, series_id, record_id)
);

-- What a record is known again by; one that was deleted is known by nothing.
create table record_key (
    kind varchar(64) not null,
    field varchar(64) not null,
    value_key varchar(2000) not null,
    record_id bigint not null,
    primary key (kind, field, value_key)
);
create index record_key_record on record_key (record_id);

-- The words that a record is searched by.
create table record_word (
    word varchar(60) not null,
    record_id bigint not null,
    primary key (word, record_id)
);
create index record_word_record on record_word (record_id);

-- The numbers of a table in the order of its rows, as lane:first-last; the entry has them in the order of the lanes.
create table table_filling (
    seq bigint primary key,
    spans character large object not null
);

-- The series of a table whose rows were numbered by several.
create table filling_series (
    series_id int not null,
    seq bigint not null,
    primary key (series_id, seq)
);
