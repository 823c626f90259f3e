-- Items of documents, such as texts of a drawing, that bear numbers of a series: by the entry that numbered them, and
-- their place among its numbers, from 0.
create table document_item (
    seq bigint not null,
    place int not null,
    series_id int not null,
    document varchar(200) not null,
    item varchar(200) not null,
    primary key (seq, place)
);
create index document_item_document on document_item (document, series_id, seq);
