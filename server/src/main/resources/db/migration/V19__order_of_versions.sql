-- The order of a suite's versions, oldest first: which one is stale is not told by which was made last.
ALTER TABLE suite_version ADD COLUMN position BIGINT NOT NULL DEFAULT 0;
UPDATE suite_version SET position = id;
