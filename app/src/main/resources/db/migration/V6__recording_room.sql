-- The room before the first word, at the take's start and at 48 kHz: lead_frames of it. The clip begins behind it.
-- place_frame is where the clip lands, or NULL for behind everything; microphone is what the browser really granted.
ALTER TABLE take
  ADD COLUMN lead_source_frames BIGINT NOT NULL DEFAULT 0,
  ADD COLUMN lead_frames BIGINT NOT NULL DEFAULT 0,
  ADD COLUMN place_frame BIGINT NULL,
  ADD COLUMN line_id BIGINT NULL REFERENCES brief_line (id) ON DELETE SET NULL,
  ADD COLUMN microphone VARCHAR(500) NULL,
  MODIFY state VARCHAR(12) NOT NULL CHECK (state IN ('RECORDING', 'ARRIVED', 'READY', 'FAILED', 'ERASED'));

-- Somebody who speaks for a crew and is none of its students. Asked for once, remembered.
CREATE TABLE guest (
  id          BIGINT      NOT NULL AUTO_INCREMENT PRIMARY KEY,
  crew_id     BIGINT      NOT NULL REFERENCES crew (id),
  name        VARCHAR(80) NOT NULL,
  extent      VARCHAR(10) NOT NULL CHECK (extent IN ('NONE', 'SCHOOL', 'PUBLIC')),
  recorded_by BIGINT      NOT NULL REFERENCES person (id),
  recorded_at DATETIME(6) NOT NULL,
  UNIQUE (crew_id, name)
);

-- Whose voices are in a take, since who signed in is not who speaks.
CREATE TABLE take_voice (
  take_id   BIGINT NOT NULL REFERENCES take (id),
  person_id BIGINT NULL REFERENCES person (id),
  guest_id  BIGINT NULL REFERENCES guest (id),
  UNIQUE (take_id, person_id, guest_id),
  CHECK ((person_id IS NULL) <> (guest_id IS NULL))
);

-- Moments flagged while speaking, in frames of the take's source rate, counted from its very start.
CREATE TABLE take_flag (
  take_id      BIGINT NOT NULL REFERENCES take (id),
  source_frame BIGINT NOT NULL,
  PRIMARY KEY (take_id, source_frame)
);

-- A child has asked for a take to be erased; the teacher answers.
CREATE TABLE erase_request (
  take_id     BIGINT       NOT NULL PRIMARY KEY REFERENCES take (id),
  asked_by    BIGINT       NOT NULL REFERENCES person (id),
  asked_at    DATETIME(6)  NOT NULL,
  answer      VARCHAR(8)   NULL CHECK (answer IN ('ERASED', 'KEPT')),
  answered_by BIGINT       NULL REFERENCES person (id),
  answered_at DATETIME(6)  NULL
);
