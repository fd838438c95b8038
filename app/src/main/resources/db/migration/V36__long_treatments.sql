-- A take may have many places that are mended.
ALTER TABLE sound MODIFY treatment MEDIUMTEXT NOT NULL;
