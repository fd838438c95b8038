-- What somebody says of a span of a hand-in. The anchor binds it to the recorded sound, so that it finds its words again.
CREATE TABLE margin_note (
  id          BIGINT       NOT NULL AUTO_INCREMENT PRIMARY KEY,
  hand_in_id  BIGINT       NOT NULL REFERENCES hand_in (id),
  author_id   BIGINT       NOT NULL REFERENCES person (id),
  kind        VARCHAR(10)  NOT NULL CHECK (kind IN ('LOVELY', 'QUESTION', 'MEND')),
  words       VARCHAR(500) NOT NULL,
  start_frame BIGINT       NOT NULL,
  end_frame   BIGINT       NOT NULL,
  anchor      MEDIUMTEXT   NOT NULL,
  done_by     BIGINT       NULL REFERENCES person (id),
  done_at     DATETIME(6)  NULL,
  created_at  DATETIME(6)  NOT NULL,
  CHECK (start_frame >= 0 AND end_frame > start_frame),
  CHECK ((done_by IS NULL) = (done_at IS NULL)),
  INDEX (hand_in_id, start_frame)
);
