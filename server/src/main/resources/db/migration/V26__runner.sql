-- A command that the runner carries out and times, as JSON; null for every other test.
ALTER TABLE test ADD COLUMN command LONGTEXT NULL;

-- What sensors said during a run, at equal steps of time.
CREATE TABLE run_track (
  id      BIGINT       NOT NULL AUTO_INCREMENT PRIMARY KEY,
  run_id  BIGINT       NOT NULL,
  kind    VARCHAR(30)  NOT NULL,
  name    VARCHAR(120) NOT NULL,
  unit    VARCHAR(30)  NOT NULL,
  step_ms INT          NOT NULL,
  packed  MEDIUMBLOB   NOT NULL,
  CONSTRAINT track_run FOREIGN KEY (run_id) REFERENCES run (id)
);
