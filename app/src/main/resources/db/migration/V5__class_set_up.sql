-- The first school is made once, by whoever has the start key; the row settles a race.
CREATE TABLE first_start (
  id        TINYINT NOT NULL PRIMARY KEY CHECK (id = 1),
  school_id BIGINT  NULL REFERENCES school (id)
);
INSERT INTO first_start (id, school_id) SELECT 1, min(id) FROM school;

-- The shipped stand-in for mail: what would have been sent.
CREATE TABLE mail (
  id        BIGINT        NOT NULL AUTO_INCREMENT PRIMARY KEY,
  school_id BIGINT        NOT NULL REFERENCES school (id),
  sender_id BIGINT        NOT NULL REFERENCES person (id),
  recipient VARCHAR(190)  NOT NULL,
  subject   VARCHAR(200)  NOT NULL,
  body      VARCHAR(4000) NOT NULL,
  sent_at   DATETIME(6)   NOT NULL
);

CREATE TABLE invitation (
  id         BIGINT       NOT NULL AUTO_INCREMENT PRIMARY KEY,
  school_id  BIGINT       NOT NULL REFERENCES school (id),
  class_id   BIGINT       NULL REFERENCES school_class (id),
  invited_by BIGINT       NOT NULL REFERENCES person (id),
  email      VARCHAR(190) NOT NULL,
  public_key CHAR(32)     NOT NULL UNIQUE,
  created_at DATETIME(6)  NOT NULL,
  used_at    DATETIME(6)  NULL
);

-- fresh_passphrase is readable until it is first used, so that its card can be printed; then it is forgotten.
ALTER TABLE person
  ADD COLUMN student_number VARCHAR(40) NULL,
  ADD COLUMN on_air_name VARCHAR(80) NULL,
  ADD COLUMN fresh_passphrase VARCHAR(60) NULL,
  ADD UNIQUE (school_id, student_number);
UPDATE person SET on_air_name = substring_index(name, ' ', 1) WHERE role = 'STUDENT';
ALTER TABLE person ADD CHECK (role <> 'STUDENT' OR on_air_name IS NOT NULL);

-- Where a voice may be heard. Only grows: the newest row of a person counts.
CREATE TABLE consent (
  id          BIGINT      NOT NULL AUTO_INCREMENT PRIMARY KEY,
  person_id   BIGINT      NOT NULL REFERENCES person (id),
  extent      VARCHAR(10) NOT NULL CHECK (extent IN ('NONE', 'SCHOOL', 'PUBLIC')),
  recorded_by BIGINT      NOT NULL REFERENCES person (id),
  recorded_at DATETIME(6) NOT NULL,
  INDEX (person_id, id)
);

-- version settles two browsers that change one brief
ALTER TABLE brief
  ADD COLUMN version BIGINT NOT NULL DEFAULT 1,
  ADD COLUMN output_format VARCHAR(12) NOT NULL DEFAULT 'MP3_STEREO'
    CHECK (output_format IN ('MP3_STEREO', 'MP3_MONO', 'FLAC', 'WAV', 'OPUS')),
  ADD COLUMN recipe VARCHAR(20) NOT NULL DEFAULT 'NONE'
    CHECK (recipe IN ('NONE', 'QUIET_ROOM', 'NOISY_CLASSROOM', 'PHONE_CORRIDOR', 'MUSIC_BED'));

CREATE TABLE brief_part (
  id              BIGINT      NOT NULL AUTO_INCREMENT PRIMARY KEY,
  class_id        BIGINT      NOT NULL REFERENCES brief (class_id),
  position        INT         NOT NULL,
  name            VARCHAR(60) NOT NULL,
  shortest_frames BIGINT      NOT NULL,
  longest_frames  BIGINT      NOT NULL,
  CHECK (shortest_frames >= 0 AND longest_frames >= shortest_frames)
);

-- A line of the script frame; its cue names a sound that comes with it.
CREATE TABLE brief_line (
  id       BIGINT       NOT NULL AUTO_INCREMENT PRIMARY KEY,
  class_id BIGINT       NOT NULL REFERENCES brief (class_id),
  position INT          NOT NULL,
  part_id  BIGINT       NULL REFERENCES brief_part (id),
  words    VARCHAR(500) NOT NULL,
  cue      VARCHAR(120) NOT NULL
);

CREATE TABLE brief_criterion (
  id          BIGINT       NOT NULL AUTO_INCREMENT PRIMARY KEY,
  class_id    BIGINT       NOT NULL REFERENCES brief (class_id),
  position    INT          NOT NULL,
  name        VARCHAR(120) NOT NULL,
  most_points INT          NOT NULL CHECK (most_points BETWEEN 1 AND 100)
);

CREATE TABLE part_owner (
  episode_id BIGINT NOT NULL REFERENCES episode (id),
  part_id    BIGINT NOT NULL REFERENCES brief_part (id) ON DELETE CASCADE,
  person_id  BIGINT NOT NULL REFERENCES person (id),
  PRIMARY KEY (episode_id, part_id)
);

-- Music and effects of a class, with what has to be said of them.
CREATE TABLE shelf_sound (
  id           BIGINT       NOT NULL AUTO_INCREMENT PRIMARY KEY,
  class_id     BIGINT       NOT NULL REFERENCES school_class (id),
  name         VARCHAR(120) NOT NULL,
  kind         VARCHAR(10)  NOT NULL CHECK (kind IN ('MUSIC', 'EFFECT')),
  author       VARCHAR(120) NOT NULL,
  licence      VARCHAR(120) NOT NULL,
  source       VARCHAR(300) NOT NULL,
  credit       VARCHAR(300) NOT NULL,
  state        VARCHAR(12)  NOT NULL CHECK (state IN ('ARRIVED', 'READY', 'FAILED')),
  problem      VARCHAR(40)  NULL,
  source_rate  INT          NOT NULL DEFAULT 0,
  original_key CHAR(32)     NULL,
  sound_key    CHAR(32)     NULL,
  skyline_key  CHAR(32)     NULL,
  channels     INT          NULL,
  frames       BIGINT       NULL,
  clipped      MEDIUMTEXT   NULL,
  added_by     BIGINT       NOT NULL REFERENCES person (id),
  created_at   DATETIME(6)  NOT NULL,
  gone_at      DATETIME(6)  NULL,
  CHECK (state <> 'READY' OR (sound_key IS NOT NULL AND skyline_key IS NOT NULL AND channels IS NOT NULL
                              AND frames IS NOT NULL AND clipped IS NOT NULL)),
  INDEX (class_id, name)
);

CREATE TABLE shelf_excerpt (
  id          BIGINT      NOT NULL AUTO_INCREMENT PRIMARY KEY,
  sound_id    BIGINT      NOT NULL REFERENCES shelf_sound (id),
  name        VARCHAR(60) NOT NULL,
  start_frame BIGINT      NOT NULL,
  end_frame   BIGINT      NOT NULL,
  UNIQUE (sound_id, name),
  CHECK (start_frame >= 0 AND end_frame > start_frame)
);

-- What every new crew finds on its bench.
CREATE TABLE brief_clip (
  id          BIGINT        NOT NULL AUTO_INCREMENT PRIMARY KEY,
  class_id    BIGINT        NOT NULL REFERENCES brief (class_id),
  position    INT           NOT NULL,
  track_name  VARCHAR(60)   NOT NULL,
  sound_id    BIGINT        NOT NULL REFERENCES shelf_sound (id),
  excerpt_id  BIGINT        NULL REFERENCES shelf_excerpt (id) ON DELETE SET NULL,
  start_frame BIGINT        NOT NULL CHECK (start_frame >= 0),
  gain_db     DECIMAL(5, 2) NOT NULL
);

-- A take may be a sound from the shelf: the same files, and its credit.
ALTER TABLE take
  ADD COLUMN shelf_sound_id BIGINT NULL REFERENCES shelf_sound (id),
  MODIFY origin VARCHAR(12) NOT NULL CHECK (origin IN ('RECORDED', 'BROUGHT_IN', 'SHELF'));

ALTER TABLE episode ADD COLUMN opened_at DATETIME(6) NULL;

-- Whose turn it is to record, so that thirty children do not speak at once.
CREATE TABLE recording_round (
  class_id   BIGINT      NOT NULL PRIMARY KEY REFERENCES school_class (id),
  crew_id    BIGINT      NOT NULL REFERENCES crew (id),
  started_at DATETIME(6) NOT NULL
);

-- The peaks of the last chunks of a recording, in dBFS, newest last: how loud it is, while it can still be helped.
ALTER TABLE take ADD COLUMN recent_peaks VARCHAR(200) NOT NULL DEFAULT '';
