-- What went off air, or was kept from going there, because a voice in it may not be heard in public any more: said until a teacher of the class has read it.
-- Whose voice it is stands in the consents alone.
CREATE TABLE taken_back (
  id         BIGINT       NOT NULL AUTO_INCREMENT PRIMARY KEY,
  hand_in_id BIGINT       NOT NULL,
  title      VARCHAR(120) NOT NULL,
  correction BOOLEAN      NOT NULL,
  by_id      BIGINT       NULL,
  at         DATETIME(6)  NOT NULL,
  read_at    DATETIME(6)  NULL,
  CONSTRAINT taken_back_hand_in FOREIGN KEY (hand_in_id) REFERENCES hand_in (id) ON DELETE CASCADE,
  CONSTRAINT taken_back_by FOREIGN KEY (by_id) REFERENCES person (id) ON DELETE SET NULL
);
