-- Who agreed, besides who wrote it down: "mother, on paper".
ALTER TABLE consent ADD COLUMN said_by VARCHAR(120) NOT NULL DEFAULT '';
