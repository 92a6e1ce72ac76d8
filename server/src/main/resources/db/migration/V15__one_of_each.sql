-- What a check alone cannot hold when two come at once.

-- One owner. Should an older version have made a second one, the first stays.
UPDATE person p JOIN (SELECT MIN(id) AS id FROM person WHERE role = 'OWNER') first ON p.role = 'OWNER' AND p.id <> first.id SET p.role = 'REVIEWER';
ALTER TABLE person ADD COLUMN owner_place TINYINT GENERATED ALWAYS AS (CASE WHEN role = 'OWNER' THEN 1 END) STORED, ADD UNIQUE KEY person_owner (owner_place);

-- One run of each number and attempt. Two tabs of one device carried out the same ones: the later becomes a further
-- attempt, so that both stay.
UPDATE run r JOIN (
    SELECT id, base + ROW_NUMBER() OVER (PARTITION BY session_id, test_id, run_number ORDER BY id) AS attempt
    FROM (SELECT id, session_id, test_id, run_number,
                 MAX(attempt) OVER (PARTITION BY session_id, test_id, run_number) AS base,
                 ROW_NUMBER() OVER (PARTITION BY session_id, test_id, run_number, attempt ORDER BY id) AS same
          FROM run) numbered
    WHERE same > 1) twice ON twice.id = r.id
  SET r.attempt = twice.attempt;
ALTER TABLE run ADD UNIQUE KEY run_attempt (session_id, test_id, run_number, attempt), DROP KEY run_session;

-- A name is another name with another accent: Zurn is not Zürn. Upper and lower case stay the same.
ALTER TABLE maker MODIFY name VARCHAR(120) NOT NULL COLLATE uca1400_as_ci;
ALTER TABLE model MODIFY name VARCHAR(120) NOT NULL COLLATE uca1400_as_ci;
ALTER TABLE unit MODIFY label VARCHAR(80) NOT NULL COLLATE uca1400_as_ci;
ALTER TABLE suite MODIFY name VARCHAR(120) NOT NULL COLLATE uca1400_as_ci;
ALTER TABLE suite_version MODIFY version VARCHAR(40) NOT NULL COLLATE uca1400_as_ci, MODIFY mode VARCHAR(120) NOT NULL DEFAULT '' COLLATE uca1400_as_ci;
ALTER TABLE test MODIFY name VARCHAR(120) NOT NULL COLLATE uca1400_as_ci;
ALTER TABLE metric MODIFY name VARCHAR(120) NOT NULL COLLATE uca1400_as_ci;
ALTER TABLE purpose MODIFY name VARCHAR(120) NOT NULL COLLATE uca1400_as_ci;
ALTER TABLE plan MODIFY name VARCHAR(120) NOT NULL COLLATE uca1400_as_ci;
ALTER TABLE person MODIFY name VARCHAR(80) NOT NULL COLLATE uca1400_as_ci;
ALTER TABLE saved_view MODIFY name VARCHAR(80) NOT NULL COLLATE uca1400_as_ci, MODIFY person VARCHAR(80) NOT NULL COLLATE uca1400_as_ci;
