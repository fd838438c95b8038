-- How many of the bench's actions crews see before they open the rest.
ALTER TABLE brief ADD COLUMN actions ENUM('FEW', 'USUAL', 'ALL') NOT NULL DEFAULT 'USUAL';
