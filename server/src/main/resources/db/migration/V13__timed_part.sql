-- How much of a run's duration was timed; the rest prepared, warmed up and checked. Null where nobody timed parts.
ALTER TABLE run ADD COLUMN timed_ms INT NULL;
