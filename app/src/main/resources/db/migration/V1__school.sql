-- Ids are BIGINT inside; what stands in a public link is a random 128-bit key. Times are UTC. Lengths are frames at 48 kHz.

CREATE TABLE school (
  id        BIGINT       NOT NULL AUTO_INCREMENT PRIMARY KEY,
  name      VARCHAR(120) NOT NULL,
  time_zone VARCHAR(60)  NOT NULL
);

CREATE TABLE person (
  id          BIGINT       NOT NULL AUTO_INCREMENT PRIMARY KEY,
  school_id   BIGINT       NOT NULL REFERENCES school (id),
  role        VARCHAR(10)  NOT NULL CHECK (role IN ('TEACHER', 'STUDENT')),
  name        VARCHAR(80)  NOT NULL,
  email       VARCHAR(190) NULL UNIQUE,
  secret_hash VARCHAR(200) NOT NULL,
  CHECK (role = 'STUDENT' OR email IS NOT NULL)
);

CREATE TABLE school_class (
  id        BIGINT      NOT NULL AUTO_INCREMENT PRIMARY KEY,
  school_id BIGINT      NOT NULL REFERENCES school (id),
  name      VARCHAR(60) NOT NULL,
  code      VARCHAR(20) NOT NULL UNIQUE
);

CREATE TABLE class_teacher (
  class_id  BIGINT NOT NULL REFERENCES school_class (id),
  person_id BIGINT NOT NULL REFERENCES person (id),
  PRIMARY KEY (class_id, person_id)
);

CREATE TABLE class_student (
  class_id  BIGINT NOT NULL REFERENCES school_class (id),
  person_id BIGINT NOT NULL REFERENCES person (id),
  PRIMARY KEY (class_id, person_id)
);

CREATE TABLE brief (
  class_id        BIGINT        NOT NULL PRIMARY KEY REFERENCES school_class (id),
  project         VARCHAR(120)  NOT NULL,
  story           VARCHAR(1000) NOT NULL,
  loudness_lufs   DECIMAL(5, 2) NOT NULL,
  ceiling_dbtp    DECIMAL(5, 2) NOT NULL,
  shortest_frames BIGINT        NOT NULL,
  longest_frames  BIGINT        NOT NULL,
  due_day         DATE          NULL
);

CREATE TABLE crew (
  id       BIGINT      NOT NULL AUTO_INCREMENT PRIMARY KEY,
  class_id BIGINT      NOT NULL REFERENCES school_class (id),
  name     VARCHAR(60) NOT NULL,
  UNIQUE (class_id, name)
);

CREATE TABLE crew_member (
  crew_id   BIGINT NOT NULL REFERENCES crew (id),
  person_id BIGINT NOT NULL REFERENCES person (id),
  PRIMARY KEY (crew_id, person_id)
);

CREATE TABLE episode (
  id      BIGINT       NOT NULL AUTO_INCREMENT PRIMARY KEY,
  crew_id BIGINT       NOT NULL UNIQUE REFERENCES crew (id),
  title   VARCHAR(120) NOT NULL
);

-- One recording or one file that was brought in, kept whole. Its sound never changes.
CREATE TABLE take (
  id              BIGINT       NOT NULL AUTO_INCREMENT PRIMARY KEY,
  episode_id      BIGINT       NOT NULL REFERENCES episode (id),
  author_id       BIGINT       NOT NULL REFERENCES person (id),
  name            VARCHAR(120) NOT NULL,
  track_name      VARCHAR(60)  NOT NULL,
  origin          VARCHAR(12)  NOT NULL CHECK (origin IN ('RECORDED', 'BROUGHT_IN')),
  state           VARCHAR(12)  NOT NULL CHECK (state IN ('RECORDING', 'ARRIVED', 'READY', 'FAILED')),
  problem         VARCHAR(40)  NULL,
  source_rate     INT          NOT NULL,
  source_channels INT          NOT NULL,
  original_key    CHAR(32)     NULL,
  sound_key       CHAR(32)     NULL,
  skyline_key     CHAR(32)     NULL,
  channels        INT          NULL,
  frames          BIGINT       NULL,
  clipped         MEDIUMTEXT   NULL,
  created_at      DATETIME(6)  NOT NULL,
  CHECK (state <> 'READY' OR (sound_key IS NOT NULL AND skyline_key IS NOT NULL AND channels IS NOT NULL
                              AND frames IS NOT NULL AND clipped IS NOT NULL)),
  INDEX (episode_id, created_at)
);

-- What a microphone sent so far: 16-bit PCM at the take's source rate. Gone once the take is ready.
CREATE TABLE take_chunk (
  take_id     BIGINT     NOT NULL REFERENCES take (id),
  number      INT        NOT NULL,
  first_frame BIGINT     NOT NULL,
  frames      INT        NOT NULL,
  pcm         MEDIUMBLOB NOT NULL,
  PRIMARY KEY (take_id, number)
);

CREATE TABLE timeline (
  hash           CHAR(64)   NOT NULL PRIMARY KEY,
  format_version INT        NOT NULL,
  body           MEDIUMBLOB NOT NULL
);

-- Only grows. (episode, seq) settles races; (episode, client_id) makes sending an edit twice harmless.
CREATE TABLE revision (
  episode_id    BIGINT      NOT NULL REFERENCES episode (id),
  seq           BIGINT      NOT NULL,
  timeline_hash CHAR(64)    NOT NULL REFERENCES timeline (hash),
  edit          TEXT        NULL,
  author_id     BIGINT      NULL REFERENCES person (id),
  client_id     VARCHAR(40) NOT NULL,
  undo_to       BIGINT      NOT NULL,
  redo_to       BIGINT      NOT NULL,
  created_at    DATETIME(6) NOT NULL,
  PRIMARY KEY (episode_id, seq),
  UNIQUE (episode_id, client_id)
);

-- A frozen version. One revision can be handed in once, so that a double press makes one.
CREATE TABLE hand_in (
  id            BIGINT       NOT NULL AUTO_INCREMENT PRIMARY KEY,
  episode_id    BIGINT       NOT NULL REFERENCES episode (id),
  number        INT          NOT NULL,
  revision_seq  BIGINT       NOT NULL,
  timeline_hash CHAR(64)     NOT NULL REFERENCES timeline (hash),
  author_id     BIGINT       NOT NULL REFERENCES person (id),
  state         VARCHAR(10)  NOT NULL CHECK (state IN ('MAKING', 'READY', 'FAILED')),
  sound_key     CHAR(32)     NULL,
  skyline_key   CHAR(32)     NULL,
  frames        BIGINT       NOT NULL,
  report        TEXT         NULL,
  decision      VARCHAR(12)  NULL CHECK (decision IN ('ANOTHER_PASS', 'CLEARED')),
  sentence      VARCHAR(500) NULL,
  decided_by    BIGINT       NULL REFERENCES person (id),
  decided_at    DATETIME(6)  NULL,
  created_at    DATETIME(6)  NOT NULL,
  UNIQUE (episode_id, number),
  UNIQUE (episode_id, revision_seq),
  CHECK (state <> 'READY' OR (sound_key IS NOT NULL AND skyline_key IS NOT NULL AND report IS NOT NULL)),
  CHECK (decision IS NULL OR (state = 'READY' AND decided_by IS NOT NULL AND decided_at IS NOT NULL))
);

CREATE TABLE feed (
  class_id   BIGINT   NOT NULL PRIMARY KEY REFERENCES school_class (id),
  public_key CHAR(32) NOT NULL UNIQUE
);

-- Each time an episode goes on air it gets a new key, so that the address of what was taken off stays gone.
CREATE TABLE publication (
  id                   BIGINT        NOT NULL AUTO_INCREMENT PRIMARY KEY,
  episode_id           BIGINT        NOT NULL REFERENCES episode (id),
  hand_in_id           BIGINT        NOT NULL REFERENCES hand_in (id),
  public_key           CHAR(32)      NOT NULL UNIQUE,
  title                VARCHAR(120)  NOT NULL,
  description          VARCHAR(2000) NOT NULL,
  slug                 VARCHAR(60)   NOT NULL,
  state                VARCHAR(10)   NOT NULL CHECK (state IN ('PREPARING', 'ON_AIR', 'OFF_AIR', 'FAILED')),
  sound_key            CHAR(32)      NULL,
  bytes                BIGINT        NULL,
  frames               BIGINT        NULL,
  loudness_lufs        DOUBLE        NULL,
  true_peak_dbtp       DOUBLE        NULL,
  consent_confirmed_by BIGINT        NOT NULL REFERENCES person (id),
  created_at           DATETIME(6)   NOT NULL,
  on_air_at            DATETIME(6)   NULL,
  off_air_at           DATETIME(6)   NULL,
  live_episode_id      BIGINT AS (IF(state IN ('PREPARING', 'ON_AIR'), episode_id, NULL)) PERSISTENT UNIQUE,
  CHECK (state <> 'ON_AIR' OR (sound_key IS NOT NULL AND bytes IS NOT NULL AND frames IS NOT NULL
                               AND on_air_at IS NOT NULL))
);

CREATE TABLE job_progress (
  job      VARCHAR(60) NOT NULL PRIMARY KEY,
  permille INT         NOT NULL
);
