-- When speaking began: a take is no longer than the clock. What came too late for a take becomes another one, which began with it.
ALTER TABLE recording ADD COLUMN begun_at DATETIME(6) NULL;
UPDATE recording r JOIN take t ON t.id = r.take_id SET r.begun_at = t.created_at;
ALTER TABLE recording MODIFY COLUMN begun_at DATETIME(6) NOT NULL;
