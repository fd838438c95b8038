-- Cleanup recipes that a teacher keeps for a class, with a word on when to use them.
CREATE TABLE class_recipe (
  id         BIGINT       NOT NULL AUTO_INCREMENT PRIMARY KEY,
  class_id   BIGINT       NOT NULL,
  name       VARCHAR(60)  NOT NULL,
  advice     VARCHAR(200) NOT NULL,
  recipe     VARCHAR(2000) NOT NULL,
  created_at TIMESTAMP(3) NOT NULL,
  CONSTRAINT class_recipe_class FOREIGN KEY (class_id) REFERENCES school_class (id),
  CONSTRAINT class_recipe_name UNIQUE (class_id, name)
);
