-- Purposes that people make, generations of models, the state of a review, and standings kept with their numbers.

ALTER TABLE purpose ADD COLUMN retired_at DATETIME(3) NULL;

-- Weight of a suite beside the others of its group, or of a test beside the others of its suite; 1 where there is none.
CREATE TABLE purpose_suite (
  purpose_id BIGINT NOT NULL,
  suite_id   BIGINT NOT NULL,
  weight     DOUBLE NOT NULL,
  PRIMARY KEY (purpose_id, suite_id),
  CONSTRAINT purpose_suite_purpose FOREIGN KEY (purpose_id) REFERENCES purpose (id),
  CONSTRAINT purpose_suite_suite FOREIGN KEY (suite_id) REFERENCES suite (id)
);
CREATE TABLE purpose_test (
  purpose_id BIGINT NOT NULL,
  test_id    BIGINT NOT NULL,
  weight     DOUBLE NOT NULL,
  PRIMARY KEY (purpose_id, test_id),
  CONSTRAINT purpose_test_purpose FOREIGN KEY (purpose_id) REFERENCES purpose (id),
  CONSTRAINT purpose_test_test FOREIGN KEY (test_id) REFERENCES test (id)
);

ALTER TABLE model
  ADD COLUMN review VARCHAR(16) NULL, ADD COLUMN predecessor_id BIGINT NULL,
  ADD CONSTRAINT model_predecessor FOREIGN KEY (predecessor_id) REFERENCES model (id) ON DELETE SET NULL;

-- What was shown on a day, as it was shown. The key is the only thing that a reader needs, and nobody can guess it.
CREATE TABLE frozen_standing (
  frozen_key CHAR(24)    NOT NULL COLLATE utf8mb4_bin PRIMARY KEY,
  caption    VARCHAR(2000) NOT NULL,
  answer     LONGTEXT    NOT NULL,
  person     VARCHAR(80) NOT NULL,
  at         DATETIME(3) NOT NULL,
  KEY frozen_at (at)
);
