-- A teacher's second step at sign-in (RFC 6238): the secret, the step whose code was used last, and the hash of the key that turns it off.
ALTER TABLE person
  ADD COLUMN step_secret   VARCHAR(64) NULL,
  ADD COLUMN step_used     BIGINT      NULL,
  ADD COLUMN step_off_hash CHAR(64)    NULL,
  ADD CHECK (step_secret IS NULL OR step_off_hash IS NOT NULL);
