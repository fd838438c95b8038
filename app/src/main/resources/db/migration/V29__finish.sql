-- How the newest measured mix of an episode is finished: what its bench plays through until the next one is measured.
CREATE TABLE finish (
  episode_id        BIGINT NOT NULL PRIMARY KEY,
  revision_seq      BIGINT NOT NULL,
  gain_millidb      INT NOT NULL,
  ceiling_millidbtp INT NOT NULL,
  measured_at       DATETIME(6) NOT NULL,
  FOREIGN KEY (episode_id) REFERENCES episode (id) ON DELETE CASCADE
);
