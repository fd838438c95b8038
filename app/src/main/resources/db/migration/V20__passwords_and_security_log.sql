-- The teacher who leads the school: who may see its log and how its copies stand.
ALTER TABLE person ADD COLUMN is_lead BOOLEAN NOT NULL DEFAULT FALSE;
UPDATE person p JOIN (SELECT school_id, min(id) AS id FROM person WHERE role = 'TEACHER' GROUP BY school_id) first
  ON first.id = p.id SET p.is_lead = TRUE;

-- Links with which somebody sets a new password: here is only the hash of the key.
CREATE TABLE password_reset (
  key_hash  CHAR(64)    NOT NULL PRIMARY KEY,
  person_id BIGINT      NOT NULL REFERENCES person (id) ON DELETE CASCADE,
  asked_at  DATETIME(6) NOT NULL,
  used_at   DATETIME(6) NULL
);

-- What matters to the safety of the school. People are named by number only, and go when they go.
CREATE TABLE security_event (
  id         BIGINT       NOT NULL AUTO_INCREMENT PRIMARY KEY,
  school_id  BIGINT       NOT NULL REFERENCES school (id),
  at         DATETIME(6)  NOT NULL,
  kind       VARCHAR(24)  NOT NULL,
  actor_id   BIGINT       NULL REFERENCES person (id) ON DELETE SET NULL,
  subject_id BIGINT       NULL REFERENCES person (id) ON DELETE SET NULL,
  detail     VARCHAR(120) NULL,
  INDEX (school_id, id),
  INDEX (at)
);
