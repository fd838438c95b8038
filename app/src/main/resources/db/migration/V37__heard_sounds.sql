-- What the sound check wants to know of a sound, and what harm its treatment did; measured when they are first asked for.
ALTER TABLE sound ADD COLUMN heard MEDIUMTEXT NULL, ADD COLUMN harm VARCHAR(500) NULL;
