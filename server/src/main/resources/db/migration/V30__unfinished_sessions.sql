-- How many tests a session was to have (null: nobody planned any), and whether somebody said that it counts although it was
-- never finished.
ALTER TABLE session ADD COLUMN tests INT NULL, ADD COLUMN counts BIT(1) NOT NULL DEFAULT b'0';

UPDATE session s JOIN (SELECT session_id, COUNT(*) AS tests FROM session_test GROUP BY session_id) p ON p.session_id = s.id SET s.tests = p.tests;
UPDATE session s JOIN seat t ON t.session_id = s.id
  JOIN (SELECT plan_id, COUNT(DISTINCT test_id) AS tests, COUNT(DISTINCT IF(nice, NULL, test_id)) AS musts FROM plan_item GROUP BY plan_id) p ON p.plan_id = t.plan_id
  SET s.tests = IF(t.must_only, p.musts, p.tests);

-- A lab that chose its conditions itself has this one as well, as everybody has.
UPDATE app_setting SET value = IF(value = '', 'UNFINISHED', CONCAT(value, ',UNFINISHED')) WHERE name = 'conditions.not-counted';
