-- A comparison that could not be made is told apart from one that found nothing in common, and can be asked for again.
ALTER TABLE line_up MODIFY state VARCHAR(10) NOT NULL CHECK (state IN ('MEASURING', 'MATCHED', 'REFUSED', 'FAILED'));
