-- Null: as the plan says.
ALTER TABLE plan_item ADD COLUMN timed_ms INT NULL;
