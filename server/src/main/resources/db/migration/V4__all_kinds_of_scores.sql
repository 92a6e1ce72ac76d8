-- Metrics of every kind, values computed from others, joined comparability groups; evidence, reading rules, published
-- scores, saved views of the ledger.

-- choices: of an ordered list, from worst to best, one a line. series: which number of the test's curve or frame times.
ALTER TABLE metric
  ADD COLUMN kind VARCHAR(12) NOT NULL DEFAULT 'NUMBER', ADD COLUMN choices VARCHAR(2000) NULL, ADD COLUMN x_unit VARCHAR(30) NULL,
  ADD COLUMN capped BIT(1) NOT NULL DEFAULT b'0', ADD COLUMN series VARCHAR(20) NULL, ADD COLUMN formula VARCHAR(500) NULL;
UPDATE metric SET kind = 'DURATION' WHERE unit IN ('ns', 'µs', 'us', 'ms', 's', 'min', 'h');
UPDATE metric SET kind = 'PERCENTAGE' WHERE unit = '%';

-- What a metric with a formula is computed from. The name is that in the formula.
CREATE TABLE metric_input (
  metric_id BIGINT      NOT NULL,
  name      VARCHAR(60) NOT NULL COLLATE utf8mb4_bin,
  input_id  BIGINT      NOT NULL,
  PRIMARY KEY (metric_id, name),
  KEY input_of (input_id),
  CONSTRAINT input_metric FOREIGN KEY (metric_id) REFERENCES metric (id),
  CONSTRAINT input_input FOREIGN KEY (input_id) REFERENCES metric (id)
);

-- A test nobody runs any more: its scores stay, it is no longer offered, computed or ranked.
ALTER TABLE test ADD COLUMN retired_at DATETIME(3) NULL;

-- Joining is a recorded decision and can be taken back.
ALTER TABLE comparability_group
  ADD COLUMN joined_into_id BIGINT NULL, ADD COLUMN joined_reason VARCHAR(500) NULL, ADD COLUMN joined_by VARCHAR(80) NULL, ADD COLUMN joined_at DATETIME(3) NULL,
  ADD CONSTRAINT group_joined FOREIGN KEY (joined_into_id) REFERENCES comparability_group (id);

-- Who carried it out, and which reading it corrects. Readings set aside together carry one number.
ALTER TABLE run ADD COLUMN person VARCHAR(80) NULL, ADD KEY run_person (person, finished_at);
ALTER TABLE reading ADD COLUMN corrects_id BIGINT NULL, ADD CONSTRAINT reading_corrects FOREIGN KEY (corrects_id) REFERENCES reading (id);
ALTER TABLE set_aside ADD COLUMN batch BIGINT NULL, ADD KEY aside_batch (batch);

CREATE TABLE saved_view (
  id      BIGINT AUTO_INCREMENT PRIMARY KEY,
  person  VARCHAR(80)   NOT NULL,
  name    VARCHAR(80)   NOT NULL,
  address VARCHAR(2000) NOT NULL,
  made_at DATETIME(3)   NOT NULL,
  UNIQUE KEY view_name (person, name)
);

-- A photo, a log or another file that stays with a session or one of its runs.
CREATE TABLE evidence (
  id         BIGINT AUTO_INCREMENT PRIMARY KEY,
  session_id BIGINT       NOT NULL,
  run_id     BIGINT       NULL,
  hash       CHAR(64)     NOT NULL,
  name       VARCHAR(200) NOT NULL,
  size_bytes BIGINT       NOT NULL,
  person     VARCHAR(80)  NOT NULL,
  at         DATETIME(3)  NOT NULL,
  removed_at DATETIME(3)  NULL,
  removed_by VARCHAR(80)  NULL,
  KEY evidence_session (session_id, removed_at),
  CONSTRAINT evidence_session FOREIGN KEY (session_id) REFERENCES session (id),
  CONSTRAINT evidence_run FOREIGN KEY (run_id) REFERENCES run (id),
  CONSTRAINT evidence_file FOREIGN KEY (hash) REFERENCES stored_file (hash)
);

-- How scores of a suite version are taken out of what a tool prints, with the text it was made on.
CREATE TABLE reading_rule (
  id               BIGINT AUTO_INCREMENT PRIMARY KEY,
  suite_version_id BIGINT      NOT NULL,
  person           VARCHAR(80) NOT NULL,
  made_at          DATETIME(3) NOT NULL,
  retired_at       DATETIME(3) NULL,
  sample           MEDIUMTEXT  NOT NULL,
  KEY rule_version (suite_version_id, retired_at),
  CONSTRAINT rule_version FOREIGN KEY (suite_version_id) REFERENCES suite_version (id)
);
CREATE TABLE reading_rule_pattern (
  rule_id    BIGINT       NOT NULL,
  position   INT          NOT NULL,
  name       VARCHAR(120) NOT NULL,
  kind       VARCHAR(8)   NOT NULL,
  expression VARCHAR(500) NOT NULL COLLATE utf8mb4_bin,
  unit       VARCHAR(30)  NOT NULL,
  occurrence INT          NOT NULL,
  metric_id  BIGINT       NOT NULL,
  PRIMARY KEY (rule_id, position),
  CONSTRAINT pattern_rule FOREIGN KEY (rule_id) REFERENCES reading_rule (id),
  CONSTRAINT pattern_metric FOREIGN KEY (metric_id) REFERENCES metric (id)
);

-- A score that somebody else published. Never ranked or averaged with own readings.
CREATE TABLE reference_score (
  id           BIGINT AUTO_INCREMENT PRIMARY KEY,
  model_id     BIGINT       NOT NULL,
  metric_id    BIGINT       NOT NULL,
  value        DOUBLE       NOT NULL,
  resolution   DOUBLE       NOT NULL,
  source       VARCHAR(300) NOT NULL,
  published_on DATE         NULL,
  results      INT          NULL,
  person       VARCHAR(80)  NOT NULL,
  at           DATETIME(3)  NOT NULL,
  removed_at   DATETIME(3)  NULL,
  KEY reference_metric (metric_id, removed_at),
  KEY reference_model (model_id, removed_at),
  CONSTRAINT reference_model FOREIGN KEY (model_id) REFERENCES model (id),
  CONSTRAINT reference_metric FOREIGN KEY (metric_id) REFERENCES metric (id)
);
