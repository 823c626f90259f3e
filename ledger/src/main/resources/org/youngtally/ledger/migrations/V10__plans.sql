-- Plans for the numbers of tables, by the entries that began them.
create table table_plan (
    seq bigint primary key,
    series_id int not null,
    definition character large object not null,
    recorded bigint not null,
    numbered bigint not null,
    -- The entry that ended it; null while it is open.
    ended_seq bigint,
    -- Whether it was carried out, and not abandoned.
    completed boolean
);

-- The entries by which a plan was carried out.
create table plan_piece (
    seq bigint primary key,
    plan_seq bigint not null,
    -- Of numbers from before: where they are in the table; lane:first-last=lines, separated by blanks.
    lines character large object not null
);
create index plan_piece_plan on plan_piece (plan_seq, seq);
