-- A take is what was said. How it is treated is part of what a clip plays, and its sounds are files of their own.

CREATE TABLE sound (
  id            BIGINT        NOT NULL AUTO_INCREMENT PRIMARY KEY,
  take_id       BIGINT        NOT NULL REFERENCES take (id) ON DELETE CASCADE,
  treatment_key VARCHAR(64)   NOT NULL,
  treatment     VARCHAR(1000) NOT NULL,
  sound_key     CHAR(32)      NULL,
  skyline_key   CHAR(32)      NULL,
  channels      INT           NULL,
  failed        BOOLEAN       NOT NULL DEFAULT FALSE,
  UNIQUE (take_id, treatment_key),
  CHECK ((sound_key IS NULL) = (skyline_key IS NULL) AND (sound_key IS NULL) = (channels IS NULL))
);

CREATE TABLE take_findings (
  take_id    BIGINT      NOT NULL PRIMARY KEY REFERENCES take (id) ON DELETE CASCADE,
  clipped    MEDIUMTEXT  NOT NULL,
  noticed    VARCHAR(16) NOT NULL,
  room_frame BIGINT      NULL
);

CREATE TABLE original (
  take_id      BIGINT   NOT NULL PRIMARY KEY REFERENCES take (id) ON DELETE CASCADE,
  original_key CHAR(32) NULL,
  missing      TEXT     NOT NULL
);

CREATE TABLE recording (
  take_id            BIGINT       NOT NULL PRIMARY KEY REFERENCES take (id) ON DELETE CASCADE,
  upload_key         CHAR(32)     NULL UNIQUE,
  sample_rate        INT          NOT NULL,
  last_sign_at       DATETIME(6)  NOT NULL,
  source_frames      BIGINT       NULL,
  lead_source_frames BIGINT       NOT NULL,
  recent_peaks       VARCHAR(200) NOT NULL DEFAULT '',
  together           CHAR(32)     NULL,
  microphone         VARCHAR(500) NULL,
  INDEX (together)
);

-- what takes that were made of other takes have become: timelines and notes of earlier versions still name them
CREATE TABLE former_take (
  id        BIGINT        NOT NULL PRIMARY KEY,
  take_id   BIGINT        NOT NULL REFERENCES take (id) ON DELETE CASCADE,
  treatment VARCHAR(1000) NOT NULL
);
INSERT INTO former_take (id, take_id, treatment)
WITH RECURSIVE made (id, root, steps) AS (
  SELECT id, id, CAST('' AS CHAR(900)) FROM take WHERE made_from IS NULL
  UNION ALL
  SELECT t.id, made.root, concat(made.steps, IF(made.steps = '', '', ','), CASE t.derivation
      WHEN 'UNCLIPPED' THEN '{"type":"tops"}'
      WHEN 'IN_STEP' THEN concat('{"type":"clock","longerPpm":', t.drift_ppm, '}')
      ELSE concat('{"type":"sides","sides":"', t.derivation, '"}') END)
  FROM take t JOIN made ON t.made_from = made.id
)
SELECT id, root, concat('{"steps":[', steps, ']}') FROM made WHERE steps <> '';

INSERT INTO sound (take_id, treatment_key, treatment, sound_key, skyline_key, channels)
SELECT id, 'as-it-is', '{"steps":[]}', sound_key, skyline_key, channels FROM take WHERE made_from IS NULL AND sound_key IS NOT NULL;
INSERT IGNORE INTO sound (take_id, treatment_key, treatment, sound_key, skyline_key, channels)
SELECT f.take_id, sha2(concat('1:', f.treatment), 256), f.treatment, t.sound_key, t.skyline_key, t.channels
FROM former_take f JOIN take t ON t.id = f.id WHERE t.sound_key IS NOT NULL;

INSERT INTO take_findings (take_id, clipped, noticed, room_frame)
SELECT id, clipped, coalesce(noticed, 'NOTHING'), room_frame FROM take WHERE made_from IS NULL AND clipped IS NOT NULL;

INSERT INTO original (take_id, original_key, missing)
SELECT id, original_key, coalesce(missing, '[]') FROM take WHERE made_from IS NULL AND origin <> 'SHELF' AND state <> 'ERASED';

INSERT INTO recording (take_id, upload_key, sample_rate, last_sign_at, source_frames, lead_source_frames, recent_peaks, together, microphone)
SELECT id, upload_key, source_rate, last_sign_at, source_frames, lead_source_frames, recent_peaks, together, microphone
FROM take WHERE origin = 'RECORDED';

-- pairs that were compared speak of what was said; of two that come to the same the one that was laid stays
UPDATE IGNORE line_up l JOIN former_take f ON f.id = l.first_take SET l.first_take = f.take_id;
UPDATE IGNORE line_up l JOIN former_take f ON f.id = l.second_take SET l.second_take = f.take_id;
DELETE FROM line_up WHERE first_take IN (SELECT id FROM former_take) OR second_take IN (SELECT id FROM former_take) OR first_take = second_take;

UPDATE IGNORE erase_request r JOIN former_take f ON f.id = r.take_id SET r.take_id = f.take_id;
DELETE FROM erase_request WHERE take_id IN (SELECT id FROM former_take);
DELETE FROM take_voice WHERE take_id IN (SELECT id FROM former_take);
DELETE FROM take_flag WHERE take_id IN (SELECT id FROM former_take);
ALTER TABLE take DROP CONSTRAINT take_ibfk_5;
DELETE FROM take WHERE id IN (SELECT id FROM former_take);

ALTER TABLE take
  DROP CONSTRAINT CONSTRAINT_1,
  DROP CONSTRAINT CONSTRAINT_2,
  DROP CONSTRAINT CONSTRAINT_3,
  DROP COLUMN source_rate, DROP COLUMN source_channels, DROP COLUMN original_key, DROP COLUMN sound_key, DROP COLUMN skyline_key,
  DROP COLUMN channels, DROP COLUMN clipped, DROP COLUMN room_frame, DROP COLUMN upload_key, DROP COLUMN last_sign_at,
  DROP COLUMN source_frames, DROP COLUMN missing, DROP COLUMN recent_peaks, DROP COLUMN lead_source_frames, DROP COLUMN microphone,
  DROP COLUMN noticed, DROP COLUMN made_from, DROP COLUMN derivation, DROP COLUMN drift_ppm, DROP COLUMN together,
  MODIFY placing VARCHAR(6) NOT NULL DEFAULT 'BEHIND' CHECK (placing IN ('BEHIND', 'START', 'LIST')),
  ADD CHECK (state <> 'READY' OR frames IS NOT NULL);

-- where a revision has taken the time of tracks; null for nowhere
ALTER TABLE revision ADD COLUMN maps TEXT NULL;
