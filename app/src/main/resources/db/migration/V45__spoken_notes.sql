-- What is spoken in a note is recorded as takes are, and is none of the crew's.
ALTER TABLE take
  MODIFY origin VARCHAR(12) NOT NULL CHECK (origin IN ('RECORDED', 'BROUGHT_IN', 'SHELF', 'NOTE'));
-- The sound of a spoken note; and since when its crew sees a note: NULL while a teacher holds it, or its sound is on its way.
ALTER TABLE margin_note
  ADD COLUMN take_id  BIGINT      NULL UNIQUE,
  ADD COLUMN shown_at DATETIME(6) NULL,
  ADD CONSTRAINT margin_note_take FOREIGN KEY (take_id) REFERENCES take (id);
UPDATE margin_note SET shown_at = created_at WHERE held_at IS NULL;
-- When a crew was invited, so that it is news.
ALTER TABLE early_listener ADD COLUMN invited_at DATETIME(6) NULL;
