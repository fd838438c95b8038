-- A job that was ended since its time was over waits as well.
ALTER TABLE job_progress MODIFY waits_for VARCHAR(8) NULL CHECK (waits_for IN ('DISK', 'MACHINE', 'TIME', 'OURS'));
