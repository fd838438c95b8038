-- Two speakers on the two sides of one take: which of them each voice is on. NULL for a voice that is on both.
ALTER TABLE take_voice ADD COLUMN side VARCHAR(5) NULL CHECK (side IN ('LEFT', 'RIGHT'));
