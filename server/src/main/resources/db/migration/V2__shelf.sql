-- The whole shelf: what models and units are, configurations that are copied, corrected, merged and retired, checklists,
-- files, and a history whose last change can be undone.

ALTER TABLE model
  ADD COLUMN price_on DATE NULL, ADD COLUMN price_source VARCHAR(300) NULL,
  ADD COLUMN width DECIMAL(10, 6) NULL, ADD COLUMN depth DECIMAL(10, 6) NULL, ADD COLUMN height DECIMAL(10, 6) NULL,
  ADD COLUMN weight DECIMAL(12, 3) NULL, ADD COLUMN battery DECIMAL(10, 3) NULL,
  ADD COLUMN screen VARCHAR(300) NULL, ADD COLUMN ports VARCHAR(500) NULL, ADD COLUMN wireless VARCHAR(300) NULL,
  ADD COLUMN notes TEXT NULL, ADD COLUMN photo_hash CHAR(64) NULL, ADD COLUMN retired_at DATETIME(3) NULL;

ALTER TABLE unit
  ADD COLUMN serial VARCHAR(120) NULL, ADD COLUMN origin VARCHAR(300) NULL, ADD COLUMN due_back DATE NULL,
  ADD COLUMN retired_at DATETIME(3) NULL,
  ADD KEY unit_due (due_back);

-- A correction may make two configurations of a unit equal; they are then offered for merging, so equal is no error.
ALTER TABLE configuration
  ADD COLUMN retired_at DATETIME(3) NULL, ADD COLUMN merged_into BIGINT NULL,
  ADD KEY configuration_unit_facts (unit_id, fingerprint), ADD KEY configuration_facts_alone (fingerprint);
ALTER TABLE configuration DROP INDEX configuration_facts,
  ADD CONSTRAINT configuration_merged FOREIGN KEY (merged_into) REFERENCES configuration (id);

-- Facts of the change under test, where a reviewer said which they are.
CREATE TABLE tested_fact (
  configuration_id BIGINT      NOT NULL,
  fact_key         VARCHAR(80) NOT NULL COLLATE utf8mb4_bin,
  PRIMARY KEY (configuration_id, fact_key),
  CONSTRAINT tested_configuration FOREIGN KEY (configuration_id) REFERENCES configuration (id) ON DELETE CASCADE
);

-- other_value: what the other source says, until the reviewer picks one.
ALTER TABLE fact
  ADD COLUMN other_value VARCHAR(500) NULL,
  ADD KEY fact_values (fact_key, fact_value(120));

-- The past was described wrongly; the configuration itself did not change.
CREATE TABLE fact_correction (
  id               BIGINT AUTO_INCREMENT PRIMARY KEY,
  configuration_id BIGINT       NOT NULL,
  fact_key         VARCHAR(80)  NOT NULL COLLATE utf8mb4_bin,
  old_value        VARCHAR(500) NULL,
  new_value        VARCHAR(500) NULL,
  reason           VARCHAR(500) NOT NULL,
  person           VARCHAR(80)  NOT NULL,
  at               DATETIME(3)  NOT NULL,
  KEY correction_of (configuration_id, id),
  CONSTRAINT correction_configuration FOREIGN KEY (configuration_id) REFERENCES configuration (id) ON DELETE CASCADE
);

-- What a maker claims: a fact, or a score in a metric.
CREATE TABLE claim (
  id        BIGINT AUTO_INCREMENT PRIMARY KEY,
  model_id  BIGINT       NOT NULL,
  fact_key  VARCHAR(80)  NULL COLLATE utf8mb4_bin,
  metric_id BIGINT       NULL,
  value     VARCHAR(500) NOT NULL,
  source    VARCHAR(300) NOT NULL,
  KEY claim_of (model_id),
  CONSTRAINT claim_model FOREIGN KEY (model_id) REFERENCES model (id) ON DELETE CASCADE,
  CONSTRAINT claim_metric FOREIGN KEY (metric_id) REFERENCES metric (id)
);

CREATE TABLE stored_file (
  hash         CHAR(64)    NOT NULL PRIMARY KEY,
  content_type VARCHAR(60) NOT NULL,
  bytes        MEDIUMBLOB  NOT NULL,
  made_at      DATETIME(3) NOT NULL
);

-- What to do before the first run, for each class of device.
CREATE TABLE checklist_item (
  device_class VARCHAR(16)  NOT NULL,
  position     INT          NOT NULL,
  text         VARCHAR(200) NOT NULL,
  PRIMARY KEY (device_class, position)
);

-- What was ticked in a session, in the words of that day.
CREATE TABLE session_check (
  session_id BIGINT       NOT NULL,
  position   INT          NOT NULL,
  text       VARCHAR(200) NOT NULL,
  ticked     BIT(1)       NOT NULL,
  person     VARCHAR(120) NOT NULL,
  PRIMARY KEY (session_id, position),
  CONSTRAINT check_session FOREIGN KEY (session_id) REFERENCES session (id)
);

ALTER TABLE seat ADD COLUMN invited_by VARCHAR(80) NULL;

ALTER TABLE change_entry
  MODIFY old_value TEXT NULL, MODIFY new_value TEXT NULL,
  ADD COLUMN change_set BIGINT NOT NULL DEFAULT 0, ADD COLUMN reason VARCHAR(500) NULL,
  ADD COLUMN undone_by VARCHAR(80) NULL, ADD COLUMN undoes BIGINT NULL;
UPDATE change_entry SET change_set = id;
ALTER TABLE change_entry ADD KEY change_sets (subject, subject_id, change_set);
