-- A note names what it is about in front of what somebody said.
alter table entry alter column note set data type varchar(2000);

-- Jobs of labels, by the entries that began them. A label is known by its place in its job, from 0.
create table label_job (
    seq bigint primary key,
    series_id int not null,
    layout varchar(64) not null,
    definition character large object not null
);
create index label_job_series on label_job (series_id, seq);

-- Labels in a row, with the numbers that they bear; never changed.
create table label_piece (
    job_seq bigint not null,
    first_place bigint not null,
    last_place bigint not null,
    original_place bigint not null,
    lane_id int not null,
    first_position bigint not null,
    last_position bigint not null,
    -- How many in a row bear the same number, and how many of the first one's lie before them.
    alike bigint not null,
    alike_before bigint not null,
    reprint boolean not null,
    -- The entry that added them.
    seq bigint not null,
    primary key (job_seq, last_place)
);
create index label_piece_position on label_piece (lane_id, last_position);
create index label_piece_seq on label_piece (seq);

-- How it is with the labels now: labels in a row in one state.
create table label_stretch (
    job_seq bigint not null,
    first_place bigint not null,
    last_place bigint not null,
    state tinyint not null,
    primary key (job_seq, last_place)
);
create index label_stretch_state on label_stretch (state, job_seq);

-- What was done with them, in its order.
create table label_change (
    job_seq bigint not null,
    seq bigint not null,
    part int not null,
    first_place bigint not null,
    last_place bigint not null,
    state tinyint not null,
    primary key (job_seq, seq, part)
);
