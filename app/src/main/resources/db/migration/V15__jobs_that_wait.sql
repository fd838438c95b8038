-- What a job waits for before it is tried again; NULL while it works or has its turn.
ALTER TABLE job_progress ADD COLUMN waits_for VARCHAR(8) NULL CHECK (waits_for IN ('DISK', 'MACHINE', 'OURS'));
