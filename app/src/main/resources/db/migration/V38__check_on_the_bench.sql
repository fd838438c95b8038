-- The newest sound check of a page, and of which revision it is.
ALTER TABLE finish ADD COLUMN report MEDIUMTEXT NULL, ADD COLUMN report_seq BIGINT NULL;
