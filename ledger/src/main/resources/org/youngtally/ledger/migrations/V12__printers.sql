-- Where labels were sent to: the address of a printer, or none for a file.
alter table label_change add column printer varchar(255);
