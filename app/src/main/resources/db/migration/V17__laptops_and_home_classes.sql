-- Laptops that somebody has signed in on: others' attempts do not lock them out. The key is in the laptop's cookie; here is its hash.
CREATE TABLE known_laptop (
  laptop    CHAR(64)    NOT NULL,
  person_id BIGINT      NOT NULL REFERENCES person (id),
  last_at   DATETIME(6) NOT NULL,
  PRIMARY KEY (laptop, person_id),
  INDEX (person_id)
);

-- The class that makes a student's passphrase: the one that had her first.
ALTER TABLE class_student ADD COLUMN home BOOLEAN NOT NULL DEFAULT FALSE;
UPDATE class_student s JOIN (SELECT person_id, min(class_id) AS class_id FROM class_student GROUP BY person_id) first
  ON first.person_id = s.person_id AND first.class_id = s.class_id SET s.home = TRUE;

-- A student whom a class would like to have: a teacher of a class that has her answers.
CREATE TABLE join_request (
  class_id  BIGINT      NOT NULL REFERENCES school_class (id),
  person_id BIGINT      NOT NULL REFERENCES person (id),
  asked_by  BIGINT      NOT NULL REFERENCES person (id),
  asked_at  DATETIME(6) NOT NULL,
  PRIMARY KEY (class_id, person_id)
);
