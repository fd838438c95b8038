-- Somebody has said that nobody speaks in a take: music, or noise. Otherwise a take without voices is one that nobody has named yet.
ALTER TABLE take ADD COLUMN without_voice BOOLEAN NOT NULL DEFAULT FALSE;
