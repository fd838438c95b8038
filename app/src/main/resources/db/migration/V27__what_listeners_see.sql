-- Whom directories and listeners may write to, and whether search engines may list the school's pages.
ALTER TABLE school
  ADD COLUMN contact VARCHAR(254) NULL,
  ADD COLUMN indexed BOOLEAN NOT NULL DEFAULT FALSE;
