-- Where a take lands once it is ready: behind everything on its track (those that were brought in one after another in that
-- order), at the start, or nowhere until somebody lays it on.
ALTER TABLE take
  ADD COLUMN placing VARCHAR(6) NOT NULL DEFAULT 'BEHIND' CHECK (placing IN ('BEHIND', 'START', 'LIST')),
  ADD COLUMN landed BOOLEAN NOT NULL DEFAULT TRUE;
