-- Plans of the reviewer's own. A changed plan is a new row; the one before is retired, so that what is at the bench stays as it was.
ALTER TABLE plan
  ADD COLUMN stop_on_failure BIT(1) NOT NULL DEFAULT b'0', ADD COLUMN made_by VARCHAR(80) NULL, ADD COLUMN retired_at DATETIME(3) NULL, DROP INDEX name, ADD KEY plan_name (name);

-- Null: as the plan says. pause_until: a temperature in °C that somebody reads off. nice: left out when time is short.
ALTER TABLE plan_item
  ADD COLUMN runs INT NULL, ADD COLUMN pause_ms INT NULL, ADD COLUMN pause_until DOUBLE NULL, ADD COLUMN allowed_ms INT NULL,
  ADD COLUMN nice BIT(1) NOT NULL DEFAULT b'0', ADD COLUMN todo VARCHAR(500) NULL;

-- Null: as many as the session says.
ALTER TABLE session_test ADD COLUMN runs INT NULL, ADD COLUMN todo VARCHAR(500) NULL;

-- Whether nice-to-have tests are left out on this device.
ALTER TABLE seat ADD COLUMN must_only BIT(1) NOT NULL DEFAULT b'0';
