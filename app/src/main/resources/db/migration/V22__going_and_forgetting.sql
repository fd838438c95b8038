-- A school or a class that goes is hidden at once and deleted two weeks later; a class goes by itself at the end of the school
-- year after the one it began in, unless its teachers keep it longer.
ALTER TABLE school ADD COLUMN gone_at DATETIME(6) NULL;

ALTER TABLE school_class
  ADD COLUMN gone_at DATETIME(6) NULL,
  ADD COLUMN keep_until DATE NULL,
  ADD COLUMN warned_at DATETIME(6) NULL;
UPDATE school_class SET keep_until = str_to_date(concat(year(now()) + IF(month(now()) > 7, 2, 1), '-07-31'), '%Y-%m-%d');
ALTER TABLE school_class MODIFY COLUMN keep_until DATE NOT NULL;

-- One a school: stands where somebody stood who was deleted, in the work that their crew keeps.
ALTER TABLE person ADD COLUMN nobody BOOLEAN NOT NULL DEFAULT FALSE;

ALTER TABLE first_start DROP FOREIGN KEY first_start_ibfk_1;
ALTER TABLE first_start ADD FOREIGN KEY (school_id) REFERENCES school (id) ON DELETE SET NULL;
