-- Records of the first slice. Times are UTC. Text columns compare without regard to case, except keys and hashes.

CREATE TABLE app_setting (
  name  VARCHAR(80)  NOT NULL PRIMARY KEY,
  value VARCHAR(500) NOT NULL
);

CREATE TABLE person (
  id            BIGINT AUTO_INCREMENT PRIMARY KEY,
  name          VARCHAR(80)  NOT NULL UNIQUE,
  role          VARCHAR(16)  NOT NULL,
  password_hash VARCHAR(200) NOT NULL
);

-- Who changed what, when, from, to.
CREATE TABLE change_entry (
  id         BIGINT AUTO_INCREMENT PRIMARY KEY,
  at         DATETIME(3)  NOT NULL,
  person     VARCHAR(80)  NOT NULL,
  subject    VARCHAR(30)  NOT NULL,
  subject_id BIGINT       NOT NULL,
  field      VARCHAR(80)  NOT NULL,
  old_value  VARCHAR(500) NULL,
  new_value  VARCHAR(500) NULL,
  KEY change_subject (subject, subject_id, id)
);

CREATE TABLE maker (
  id   BIGINT AUTO_INCREMENT PRIMARY KEY,
  name VARCHAR(120) NOT NULL UNIQUE
);

CREATE TABLE model (
  id           BIGINT AUTO_INCREMENT PRIMARY KEY,
  maker_id     BIGINT         NOT NULL,
  name         VARCHAR(120)   NOT NULL,
  device_class VARCHAR(16)    NOT NULL,
  price        DECIMAL(12, 2) NULL,
  currency     CHAR(3)        NULL,
  released     DATE           NULL,
  version      INT            NOT NULL,
  UNIQUE KEY model_name (maker_id, name),
  KEY model_class (device_class, name),
  CONSTRAINT model_maker FOREIGN KEY (maker_id) REFERENCES maker (id)
);

CREATE TABLE unit (
  id       BIGINT AUTO_INCREMENT PRIMARY KEY,
  model_id BIGINT      NOT NULL,
  label    VARCHAR(80) NOT NULL,
  UNIQUE KEY unit_label (model_id, label),
  CONSTRAINT unit_model FOREIGN KEY (model_id) REFERENCES model (id)
);

CREATE TABLE configuration (
  id          BIGINT AUTO_INCREMENT PRIMARY KEY,
  unit_id     BIGINT       NOT NULL,
  parent_id   BIGINT       NULL,
  name        VARCHAR(200) NOT NULL,
  fingerprint CHAR(64)     NOT NULL,
  created_at  DATETIME(3)  NOT NULL,
  UNIQUE KEY configuration_facts (unit_id, fingerprint),
  CONSTRAINT configuration_unit FOREIGN KEY (unit_id) REFERENCES unit (id),
  CONSTRAINT configuration_parent FOREIGN KEY (parent_id) REFERENCES configuration (id)
);

CREATE TABLE fact (
  id               BIGINT AUTO_INCREMENT PRIMARY KEY,
  configuration_id BIGINT       NOT NULL,
  fact_key         VARCHAR(80)  NOT NULL COLLATE utf8mb4_bin,
  fact_value       VARCHAR(500) NOT NULL,
  source           VARCHAR(10)  NOT NULL,
  UNIQUE KEY fact_of (configuration_id, fact_key),
  CONSTRAINT fact_configuration FOREIGN KEY (configuration_id) REFERENCES configuration (id)
);

CREATE TABLE suite (
  id       BIGINT AUTO_INCREMENT PRIMARY KEY,
  name     VARCHAR(120) NOT NULL UNIQUE,
  built_in BIT(1)       NOT NULL
);

CREATE TABLE suite_version (
  id       BIGINT AUTO_INCREMENT PRIMARY KEY,
  suite_id BIGINT      NOT NULL,
  version  VARCHAR(40) NOT NULL,
  UNIQUE KEY suite_version_of (suite_id, version),
  CONSTRAINT suite_version_suite FOREIGN KEY (suite_id) REFERENCES suite (id)
);

-- Scores are compared only inside one comparability group. Each suite version has its own at first.
CREATE TABLE comparability_group (
  id               BIGINT AUTO_INCREMENT PRIMARY KEY,
  suite_version_id BIGINT NOT NULL UNIQUE,
  CONSTRAINT comparability_version FOREIGN KEY (suite_version_id) REFERENCES suite_version (id)
);

CREATE TABLE test (
  id                     BIGINT AUTO_INCREMENT PRIMARY KEY,
  suite_version_id       BIGINT       NOT NULL,
  comparability_group_id BIGINT       NOT NULL,
  test_key               VARCHAR(80)  NOT NULL COLLATE utf8mb4_bin,
  name                   VARCHAR(120) NOT NULL,
  summary                VARCHAR(500) NOT NULL,
  test_group             VARCHAR(20)  NOT NULL,
  position               INT          NOT NULL,
  UNIQUE KEY test_of (suite_version_id, test_key),
  CONSTRAINT test_version FOREIGN KEY (suite_version_id) REFERENCES suite_version (id),
  CONSTRAINT test_comparability FOREIGN KEY (comparability_group_id) REFERENCES comparability_group (id)
);

CREATE TABLE metric (
  id         BIGINT AUTO_INCREMENT PRIMARY KEY,
  test_id    BIGINT       NOT NULL,
  metric_key VARCHAR(80)  NOT NULL COLLATE utf8mb4_bin,
  name       VARCHAR(120) NOT NULL,
  unit       VARCHAR(30)  NOT NULL,
  direction  VARCHAR(20)  NOT NULL,
  scale      VARCHAR(12)  NOT NULL,
  main       BIT(1)       NOT NULL,
  UNIQUE KEY metric_of (test_id, metric_key),
  CONSTRAINT metric_test FOREIGN KEY (test_id) REFERENCES test (id)
);

CREATE TABLE purpose (
  id   BIGINT AUTO_INCREMENT PRIMARY KEY,
  name VARCHAR(120) NOT NULL UNIQUE
);

CREATE TABLE purpose_weight (
  purpose_id BIGINT      NOT NULL,
  test_group VARCHAR(20) NOT NULL,
  weight     DOUBLE      NOT NULL,
  PRIMARY KEY (purpose_id, test_group),
  CONSTRAINT weight_purpose FOREIGN KEY (purpose_id) REFERENCES purpose (id)
);

CREATE TABLE plan (
  id       BIGINT AUTO_INCREMENT PRIMARY KEY,
  name     VARCHAR(120) NOT NULL UNIQUE,
  runs     INT          NOT NULL,
  timed_ms INT          NOT NULL,
  pause_ms INT          NOT NULL
);

CREATE TABLE plan_item (
  plan_id  BIGINT NOT NULL,
  position INT    NOT NULL,
  test_id  BIGINT NOT NULL,
  PRIMARY KEY (plan_id, position),
  CONSTRAINT item_plan FOREIGN KEY (plan_id) REFERENCES plan (id),
  CONSTRAINT item_test FOREIGN KEY (test_id) REFERENCES test (id)
);

-- One sitting of one configuration with one plan. What the plan said is copied, so that the past stays readable.
CREATE TABLE session (
  id               BIGINT AUTO_INCREMENT PRIMARY KEY,
  configuration_id BIGINT       NOT NULL,
  plan_name        VARCHAR(120) NOT NULL,
  runs             INT          NOT NULL,
  timed_ms         INT          NOT NULL,
  state            VARCHAR(12)  NOT NULL,
  on_mains         BIT(1)       NULL,
  battery_level    DOUBLE       NULL,
  started_at       DATETIME(3)  NOT NULL,
  ended_at         DATETIME(3)  NULL,
  KEY session_configuration (configuration_id, started_at),
  CONSTRAINT session_configuration FOREIGN KEY (configuration_id) REFERENCES configuration (id)
);

-- One attempt at one test. A failure is a row with a reason, never a zero and never a hole.
CREATE TABLE run (
  id               BIGINT AUTO_INCREMENT PRIMARY KEY,
  session_id       BIGINT       NOT NULL,
  configuration_id BIGINT       NOT NULL,
  test_id          BIGINT       NOT NULL,
  run_number       INT          NOT NULL,
  attempt          INT          NOT NULL,
  state            VARCHAR(16)  NOT NULL,
  reason           VARCHAR(30)  NULL,
  reason_words     VARCHAR(500) NULL,
  duration_ms      INT          NOT NULL,
  finished_at      DATETIME(3)  NOT NULL,
  KEY run_order (finished_at, id),
  KEY run_session (session_id, test_id, run_number),
  KEY run_test (test_id, finished_at),
  KEY run_configuration (configuration_id, finished_at),
  CONSTRAINT run_session FOREIGN KEY (session_id) REFERENCES session (id),
  CONSTRAINT run_configuration FOREIGN KEY (configuration_id) REFERENCES configuration (id),
  CONSTRAINT run_test FOREIGN KEY (test_id) REFERENCES test (id)
);

-- Never updated and never deleted.
CREATE TABLE reading (
  id               BIGINT AUTO_INCREMENT PRIMARY KEY,
  run_id           BIGINT NOT NULL,
  metric_id        BIGINT NOT NULL,
  configuration_id BIGINT NOT NULL,
  value            DOUBLE NOT NULL,
  resolution       DOUBLE NOT NULL,
  UNIQUE KEY reading_of (run_id, metric_id),
  KEY reading_sample (configuration_id, metric_id),
  CONSTRAINT reading_run FOREIGN KEY (run_id) REFERENCES run (id),
  CONSTRAINT reading_metric FOREIGN KEY (metric_id) REFERENCES metric (id),
  CONSTRAINT reading_configuration FOREIGN KEY (configuration_id) REFERENCES configuration (id)
);

-- The timing samples behind a reading: one compressed row, not one row a point.
CREATE TABLE reading_samples (
  reading_id BIGINT     NOT NULL PRIMARY KEY,
  points     INT        NOT NULL,
  packed     MEDIUMBLOB NOT NULL,
  CONSTRAINT samples_reading FOREIGN KEY (reading_id) REFERENCES reading (id)
);

-- A reading is out of the count while it has a row here that was not taken back.
CREATE TABLE set_aside (
  id            BIGINT AUTO_INCREMENT PRIMARY KEY,
  reading_id    BIGINT       NOT NULL,
  reason        VARCHAR(500) NOT NULL,
  person        VARCHAR(80)  NOT NULL,
  at            DATETIME(3)  NOT NULL,
  taken_back_at DATETIME(3)  NULL,
  taken_back_by VARCHAR(80)  NULL,
  KEY aside_reading (reading_id, taken_back_at),
  CONSTRAINT aside_reading FOREIGN KEY (reading_id) REFERENCES reading (id)
);

-- All counted readings of one metric on one configuration, kept in the transaction that changes them; rebuildable.
CREATE TABLE sample (
  configuration_id    BIGINT NOT NULL,
  metric_id           BIGINT NOT NULL,
  n                   INT    NOT NULL,
  mean                DOUBLE NOT NULL,
  sum_squares         DOUBLE NOT NULL,
  resolution_variance DOUBLE NOT NULL,
  PRIMARY KEY (configuration_id, metric_id),
  KEY sample_metric (metric_id),
  CONSTRAINT sample_configuration FOREIGN KEY (configuration_id) REFERENCES configuration (id),
  CONSTRAINT sample_metric FOREIGN KEY (metric_id) REFERENCES metric (id)
);

-- A device's place at the bench: first a code that waits, then a device with a token, then its session.
CREATE TABLE seat (
  id               BIGINT AUTO_INCREMENT PRIMARY KEY,
  code             VARCHAR(24)  NOT NULL COLLATE utf8mb4_bin,
  plan_id          BIGINT       NOT NULL,
  runs             INT          NOT NULL,
  timed_ms         INT          NOT NULL,
  pause_ms         INT          NOT NULL,
  created_at       DATETIME(3)  NOT NULL,
  expires_at       DATETIME(3)  NOT NULL,
  joined_at        DATETIME(3)  NULL,
  token_hash       CHAR(64)     NULL UNIQUE,
  device           VARCHAR(200) NULL,
  session_id       BIGINT       NULL UNIQUE,
  command          VARCHAR(8)   NOT NULL,
  command_revision INT          NOT NULL,
  phase            VARCHAR(12)  NOT NULL,
  phase_test_id    BIGINT       NULL,
  phase_run        INT          NULL,
  phase_until      DATETIME(3)  NULL,
  last_heard_at    DATETIME(3)  NULL,
  KEY seat_code (code, created_at),
  KEY seat_phase (phase, created_at),
  CONSTRAINT seat_plan FOREIGN KEY (plan_id) REFERENCES plan (id),
  CONSTRAINT seat_session FOREIGN KEY (session_id) REFERENCES session (id)
);

-- What a device has delivered, so that a repeated delivery counts once and gets the same answer.
CREATE TABLE delivery (
  seat_id      BIGINT   NOT NULL,
  delivery_key CHAR(36) NOT NULL COLLATE utf8mb4_bin,
  body_hash    CHAR(64) NOT NULL,
  run_id       BIGINT   NULL,
  PRIMARY KEY (seat_id, delivery_key),
  CONSTRAINT delivery_seat FOREIGN KEY (seat_id) REFERENCES seat (id),
  CONSTRAINT delivery_run FOREIGN KEY (run_id) REFERENCES run (id)
);
