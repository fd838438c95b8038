-- Something has changed, for pages that are open. Told once, then forgotten.
CREATE TABLE event (
  id         BIGINT      NOT NULL AUTO_INCREMENT PRIMARY KEY,
  topic      VARCHAR(40) NOT NULL,
  revision   BIGINT      NOT NULL,
  created_at DATETIME(6) NOT NULL,
  INDEX (created_at)
);

-- Where the quietest second of a take starts, at 48 kHz: its room, for blanking.
ALTER TABLE take ADD COLUMN room_frame BIGINT NULL AFTER clipped;

-- Whoever has a take's upload key may add to it while it is being recorded, signed in or not. A recording gives signs of
-- life; one that has given none for a while is interrupted. What never came is kept as spans, at 48 kHz.
ALTER TABLE take
  ADD COLUMN upload_key CHAR(32) NULL UNIQUE,
  ADD COLUMN last_sign_at DATETIME(6) NULL,
  ADD COLUMN source_frames BIGINT NULL,
  ADD COLUMN missing TEXT NULL;
UPDATE take SET last_sign_at = created_at, source_frames = (SELECT sum(frames) FROM take_chunk WHERE take_id = take.id);
ALTER TABLE take MODIFY last_sign_at DATETIME(6) NOT NULL;
