-- What somebody has played of a hand-in: rows are only ever added.
CREATE TABLE heard_span (
  id          BIGINT      NOT NULL AUTO_INCREMENT PRIMARY KEY,
  hand_in_id  BIGINT      NOT NULL,
  person_id   BIGINT      NOT NULL,
  client_id   VARCHAR(40) NOT NULL,
  start_frame BIGINT      NOT NULL,
  end_frame   BIGINT      NOT NULL,
  heard_at    DATETIME(6) NOT NULL,
  CONSTRAINT heard_span_hand_in FOREIGN KEY (hand_in_id) REFERENCES hand_in (id) ON DELETE CASCADE,
  CONSTRAINT heard_span_person FOREIGN KEY (person_id) REFERENCES person (id) ON DELETE CASCADE,
  CHECK (start_frame >= 0 AND end_frame > start_frame),
  UNIQUE (hand_in_id, person_id, client_id),
  INDEX (person_id, heard_at)
);
-- How much of it sounds otherwise than in the hand-in before, and why it may go on air though nobody has heard it all.
ALTER TABLE hand_in
  ADD COLUMN new_frames     BIGINT       NULL,
  ADD COLUMN unheard_reason VARCHAR(300) NULL;
-- How the crew did what a note asks for, and whether the teacher agrees.
ALTER TABLE margin_note
  ADD COLUMN done_words VARCHAR(300) NULL,
  ADD COLUMN agreed_at  DATETIME(6)  NULL;
CREATE TABLE note_reply (
  id         BIGINT       NOT NULL AUTO_INCREMENT PRIMARY KEY,
  note_id    BIGINT       NOT NULL,
  author_id  BIGINT       NOT NULL,
  words      VARCHAR(500) NOT NULL,
  written_at DATETIME(6)  NOT NULL,
  CONSTRAINT note_reply_note FOREIGN KEY (note_id) REFERENCES margin_note (id) ON DELETE CASCADE,
  CONSTRAINT note_reply_author FOREIGN KEY (author_id) REFERENCES person (id) ON DELETE CASCADE,
  INDEX (note_id, id)
);
-- What a teacher makes of a hand-in by the rubric: a draft, seen by teachers alone, until it is sent.
CREATE TABLE marking (
  hand_in_id BIGINT        NOT NULL PRIMARY KEY,
  teacher_id BIGINT        NOT NULL,
  summary    VARCHAR(1000) NOT NULL,
  saved_at   DATETIME(6)   NOT NULL,
  sent_at    DATETIME(6)   NULL,
  CONSTRAINT marking_hand_in FOREIGN KEY (hand_in_id) REFERENCES hand_in (id) ON DELETE CASCADE,
  CONSTRAINT marking_teacher FOREIGN KEY (teacher_id) REFERENCES person (id)
);
-- Points for a criterion as it was asked for then: the crew's, or one student's, which that student alone sees.
CREATE TABLE mark (
  id          BIGINT       NOT NULL AUTO_INCREMENT PRIMARY KEY,
  hand_in_id  BIGINT       NOT NULL,
  student_id  BIGINT       NULL,
  position    INT          NOT NULL,
  criterion   VARCHAR(120) NOT NULL,
  most_points INT          NOT NULL,
  points      INT          NULL,
  sentence    VARCHAR(300) NOT NULL,
  CONSTRAINT mark_marking FOREIGN KEY (hand_in_id) REFERENCES marking (hand_in_id) ON DELETE CASCADE,
  CONSTRAINT mark_student FOREIGN KEY (student_id) REFERENCES person (id) ON DELETE CASCADE,
  CHECK (points IS NULL OR points BETWEEN 0 AND most_points),
  INDEX (hand_in_id, position)
);
