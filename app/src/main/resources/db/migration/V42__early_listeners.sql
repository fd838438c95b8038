-- Another crew that may listen to what an episode has handed in, for a time.
CREATE TABLE early_listener (
  episode_id BIGINT      NOT NULL,
  crew_id    BIGINT      NOT NULL,
  until_at   DATETIME(6) NOT NULL,
  PRIMARY KEY (episode_id, crew_id),
  CONSTRAINT early_listener_episode FOREIGN KEY (episode_id) REFERENCES episode (id) ON DELETE CASCADE,
  CONSTRAINT early_listener_crew FOREIGN KEY (crew_id) REFERENCES crew (id) ON DELETE CASCADE,
  INDEX (crew_id, until_at)
);
-- A note by a student of another crew is held until a teacher has looked at it, and again when its crew reports it.
ALTER TABLE margin_note
  ADD COLUMN held_at     DATETIME(6) NULL,
  ADD COLUMN reported_at DATETIME(6) NULL;
