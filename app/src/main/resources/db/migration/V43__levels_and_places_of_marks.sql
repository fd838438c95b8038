-- What points of a criterion mean, from so many on: "0 not yet; 3 mostly; 5 all through".
ALTER TABLE brief_criterion ADD COLUMN levels VARCHAR(500) NOT NULL DEFAULT '';
-- The level as it was called when the mark was given.
ALTER TABLE mark ADD COLUMN level VARCHAR(120) NOT NULL DEFAULT '';
-- Places of a hand-in, in frames at 48 kHz, that speak for a mark of its crew.
CREATE TABLE mark_place (
  hand_in_id  BIGINT NOT NULL,
  position    INT    NOT NULL,
  start_frame BIGINT NOT NULL,
  end_frame   BIGINT NOT NULL,
  PRIMARY KEY (hand_in_id, position, start_frame, end_frame),
  CONSTRAINT mark_place_marking FOREIGN KEY (hand_in_id) REFERENCES marking (hand_in_id) ON DELETE CASCADE,
  CHECK (start_frame >= 0 AND end_frame > start_frame)
);
