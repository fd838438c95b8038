-- How a take is made of another one, and by how much its clock was corrected; takes that were begun together on two laptops
-- have the same word in "together".
ALTER TABLE take
  DROP CONSTRAINT CONSTRAINT_2,
  CHANGE COLUMN sides derivation VARCHAR(16) NULL,
  ADD COLUMN drift_ppm DOUBLE NULL,
  ADD COLUMN together CHAR(32) NULL,
  ADD INDEX (together),
  ADD CHECK ((made_from IS NULL) = (derivation IS NULL)),
  ADD CHECK ((drift_ppm IS NOT NULL) = (derivation IS NOT NULL AND derivation = 'IN_STEP'));

-- Two takes of one conversation: how much later the second starts, how much faster the first one's clock counts.
CREATE TABLE line_up (
  id            BIGINT      NOT NULL AUTO_INCREMENT PRIMARY KEY,
  episode_id    BIGINT      NOT NULL REFERENCES episode (id),
  first_take    BIGINT      NOT NULL REFERENCES take (id),
  second_take   BIGINT      NOT NULL REFERENCES take (id),
  state         VARCHAR(10) NOT NULL CHECK (state IN ('MEASURING', 'MATCHED', 'REFUSED')),
  offset_frames BIGINT      NULL,
  drift_ppm     DOUBLE      NULL,
  confidence    DOUBLE      NULL,
  reason        VARCHAR(20) NULL,
  lays_itself   BOOLEAN     NOT NULL,
  laid_at       DATETIME(6) NULL,
  asked_by      BIGINT      NOT NULL REFERENCES person (id),
  asked_at      DATETIME(6) NOT NULL,
  UNIQUE (first_take, second_take),
  INDEX (episode_id, id),
  CHECK ((state = 'MATCHED') = (offset_frames IS NOT NULL)),
  CHECK ((state = 'REFUSED') = (reason IS NOT NULL))
);
