-- What the reviewer calls a saved standing, and what they say of it.
ALTER TABLE frozen_standing
  ADD COLUMN title VARCHAR(120)  NULL,
  ADD COLUMN words VARCHAR(4000) NULL;
