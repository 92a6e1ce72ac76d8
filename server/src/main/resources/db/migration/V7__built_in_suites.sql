-- The first five built-in tests move into the suites they belong to now. Their work is the same, so their scores keep
-- their meaning and stay where they are.
ALTER TABLE metric MODIFY COLUMN formula VARCHAR(2000) NULL;
UPDATE suite SET name = 'Yarrow processor' WHERE name = 'Yarrow round' AND built_in = 1;
INSERT INTO suite (name, built_in) SELECT 'Yarrow browser', 1 FROM suite WHERE name = 'Yarrow processor' AND built_in = 1;
INSERT INTO suite_version (suite_id, version, mode) SELECT id, '1', '' FROM suite WHERE name = 'Yarrow browser' AND built_in = 1;
INSERT INTO comparability_group (suite_version_id) SELECT v.id FROM suite_version v JOIN suite s ON s.id = v.suite_id WHERE s.name = 'Yarrow browser' AND s.built_in = 1;
UPDATE test t
  JOIN suite_version old ON old.id = t.suite_version_id JOIN suite os ON os.id = old.suite_id
  JOIN suite s ON s.name = 'Yarrow browser' AND s.built_in = 1 JOIN suite_version v ON v.suite_id = s.id JOIN comparability_group g ON g.suite_version_id = v.id
  SET t.suite_version_id = v.id, t.comparability_group_id = g.id, t.position = t.position - 3
  WHERE os.name = 'Yarrow processor' AND os.built_in = 1 AND t.test_key IN ('species-list', 'transect-sketch');
