-- A file on its way in parts. What has come lies in the sound store's arriving file of that name; take_id is set once all of it has.
CREATE TABLE incoming_file (
  upload_key CHAR(32)      NOT NULL PRIMARY KEY,
  episode_id BIGINT        NOT NULL REFERENCES episode (id),
  author_id  BIGINT        NOT NULL REFERENCES person (id),
  file_name  VARCHAR(255)  NOT NULL,
  track_name VARCHAR(60)   NOT NULL,
  placing    VARCHAR(6)    NOT NULL,
  bytes      BIGINT        NOT NULL,
  arriving   VARCHAR(1000) NOT NULL,
  take_id    BIGINT        NULL REFERENCES take (id),
  begun_at   DATETIME(6)   NOT NULL,
  INDEX (begun_at)
);
