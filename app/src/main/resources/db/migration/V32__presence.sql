-- Who has an episode open, and where in it; what is older than some seconds counts no more.
CREATE TABLE presence (
  episode_id BIGINT      NOT NULL,
  person_id  BIGINT      NOT NULL,
  frame      BIGINT      NOT NULL,
  seen_at    DATETIME(6) NOT NULL,
  PRIMARY KEY (episode_id, person_id),
  FOREIGN KEY (episode_id) REFERENCES episode (id) ON DELETE CASCADE,
  FOREIGN KEY (person_id) REFERENCES person (id) ON DELETE CASCADE
);
