-- Revisions that somebody has given a name, to find them again.
CREATE TABLE named_version (
  episode_id   BIGINT      NOT NULL,
  revision_seq BIGINT      NOT NULL,
  name         VARCHAR(60) NOT NULL,
  PRIMARY KEY (episode_id, revision_seq),
  FOREIGN KEY (episode_id) REFERENCES episode (id) ON DELETE CASCADE
);
