-- Where nobody speaks in a take, and how loud it is. NULL in takes that were measured before: they are measured again when they are next heard.
ALTER TABLE take_findings ADD COLUMN pauses MEDIUMTEXT NULL, ADD COLUMN loudness_lufs DOUBLE NULL;
