-- The number of the rule by which the identifiers of a namespace are compared; those that stood before there were two keep the first.
alter table namespace add column comparison int default 1 not null;
