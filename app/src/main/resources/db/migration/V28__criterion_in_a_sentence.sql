-- What a criterion of the rubric asks for, in a sentence.
ALTER TABLE brief_criterion ADD COLUMN sentence VARCHAR(300) NOT NULL DEFAULT '';
