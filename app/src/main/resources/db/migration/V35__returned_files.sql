-- Takes that went out as files and came back treated: kept as they came, until their take is erased.
CREATE TABLE returned_file (
  id           BIGINT      NOT NULL AUTO_INCREMENT PRIMARY KEY,
  take_id      BIGINT      NOT NULL,
  original_key CHAR(32)    NOT NULL,
  returned_at  DATETIME(6) NOT NULL,
  FOREIGN KEY (take_id) REFERENCES take (id) ON DELETE CASCADE
);
