-- Files of definitions as they were last applied, with their comments.
create table definition_file (
    name varchar(255) primary key,
    seq bigint not null,
    text character large object not null
);
