-- Which readings must be good before an episode of a class may go on air, and who may let one through.
CREATE TABLE air_rule (
  class_id     BIGINT       NOT NULL PRIMARY KEY,
  must_be_good VARCHAR(400) NOT NULL,
  lead_only    BOOLEAN      NOT NULL,
  CONSTRAINT air_rule_class FOREIGN KEY (class_id) REFERENCES school_class (id)
);
-- A reading that is not good and was let through all the same, of exactly one hand-in.
CREATE TABLE let_through (
  hand_in_id BIGINT       NOT NULL,
  kind       VARCHAR(30)  NOT NULL,
  reason     VARCHAR(300) NOT NULL,
  person_id  BIGINT       NOT NULL,
  let_at     TIMESTAMP(3) NOT NULL,
  PRIMARY KEY (hand_in_id, kind),
  CONSTRAINT let_through_hand_in FOREIGN KEY (hand_in_id) REFERENCES hand_in (id),
  CONSTRAINT let_through_person FOREIGN KEY (person_id) REFERENCES person (id)
);
