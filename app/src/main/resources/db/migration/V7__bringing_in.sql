-- Where a take lands once it is ready: behind everything on its track (those that were brought in one after another in that
-- order), at the start, nowhere until somebody lays it on, or in the place of the take that it was made from.
-- noticed is what is odd about its two sides; sides is what was made of those of made_from.
ALTER TABLE take
  ADD COLUMN placing VARCHAR(6) NOT NULL DEFAULT 'BEHIND' CHECK (placing IN ('BEHIND', 'START', 'LIST', 'SWAP')),
  ADD COLUMN landed BOOLEAN NOT NULL DEFAULT TRUE,
  ADD COLUMN noticed VARCHAR(16) NULL,
  ADD COLUMN made_from BIGINT NULL REFERENCES take (id),
  ADD COLUMN sides VARCHAR(16) NULL,
  ADD CHECK ((made_from IS NULL) = (sides IS NULL));
