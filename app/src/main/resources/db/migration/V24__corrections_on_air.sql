-- A newer hand-in takes the place of what is on air, under the same page; only the file gets another address.
ALTER TABLE publication
  ADD COLUMN next_hand_in_id BIGINT NULL REFERENCES hand_in (id),
  ADD COLUMN version INT NOT NULL DEFAULT 1;
