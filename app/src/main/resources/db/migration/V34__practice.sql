-- Every student may have an episode to spoil: it belongs to a class of its own at each school, that nobody teaches.
ALTER TABLE school_class ADD COLUMN practice BOOLEAN NOT NULL DEFAULT FALSE;
