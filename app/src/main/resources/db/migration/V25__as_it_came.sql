-- What is worth saying of a file that was brought in: that parts of it were damaged, that it is silent, that more than two channels were mixed to two.
ALTER TABLE original
  ADD COLUMN damaged BOOLEAN NOT NULL DEFAULT FALSE,
  ADD COLUMN silent BOOLEAN NOT NULL DEFAULT FALSE,
  ADD COLUMN mixed_channels INT NULL;
