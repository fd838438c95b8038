-- What waits on a laptop to be sent is sealed with a key that lies here alone; those that had begun before are not.
ALTER TABLE recording ADD COLUMN seal BINARY(32) NULL;
