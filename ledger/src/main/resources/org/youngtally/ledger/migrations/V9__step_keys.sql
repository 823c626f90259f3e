-- The steps of one request have keys of their own: its key, a line feed, and where the step begins.
alter table entry alter column request_key varchar(220);
