-- A take is laid on the page as soon as it can be heard and drawn; what is measured of it comes after that: clipped is NULL until then.
ALTER TABLE take
  DROP CONSTRAINT CONSTRAINT_1,
  ADD CHECK (state <> 'READY' OR (sound_key IS NOT NULL AND skyline_key IS NOT NULL AND channels IS NOT NULL AND frames IS NOT NULL));
