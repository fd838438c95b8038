-- Which folder of sounds belongs to this database; the folder says the same.
CREATE TABLE store_identity (
  id CHAR(32) NOT NULL PRIMARY KEY
);
