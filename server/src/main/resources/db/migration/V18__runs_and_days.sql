-- A plan may go on until the mean is known within an aim, and be carried out on several days.
ALTER TABLE plan ADD COLUMN most_runs INT NULL, ADD COLUMN known_within DOUBLE NULL, ADD COLUMN days INT NULL;
