-- Who did what is asked over everything that was ever changed, the newest first: so what was changed together gets the number
-- of its first line, and later ones get higher numbers.
CREATE TABLE set_numbers (change_set BIGINT NOT NULL PRIMARY KEY, number BIGINT NOT NULL);
INSERT INTO set_numbers SELECT change_set, MIN(id) FROM change_entry GROUP BY change_set;
UPDATE change_entry e JOIN set_numbers n ON n.change_set = e.undoes SET e.undoes = n.number;
UPDATE change_entry e JOIN set_numbers n ON n.change_set = e.change_set SET e.change_set = n.number;
DROP TABLE set_numbers;
ALTER TABLE change_entry
  ADD KEY change_whole_set (change_set, subject, subject_id),
  ADD KEY change_person (person, change_set, subject, subject_id),
  ADD KEY change_time (at);
