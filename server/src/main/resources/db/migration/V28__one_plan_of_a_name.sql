-- Plans of one name that were made in the same moment: all but the first get their number behind it.
UPDATE plan p
  JOIN (SELECT name, MIN(id) AS first FROM plan WHERE retired_at IS NULL GROUP BY name HAVING COUNT(*) > 1) d
    ON d.name = p.name AND d.first <> p.id
  SET p.name = CONCAT(LEFT(p.name, 95), ' (', p.id, ')')
  WHERE p.retired_at IS NULL;
-- Of those that are in use, one of a name; retired ones have none here.
ALTER TABLE plan ADD COLUMN used_name VARCHAR(120) NULL;
UPDATE plan SET used_name = name WHERE retired_at IS NULL;
CREATE UNIQUE INDEX plan_used_name ON plan (used_name);
