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
