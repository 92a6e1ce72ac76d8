-- What an import brought in, so that all of it can be undone at once.
CREATE TABLE ledger_import (
  id        BIGINT       NOT NULL AUTO_INCREMENT PRIMARY KEY,
  person    VARCHAR(80)  NOT NULL,
  at        DATETIME(3)  NOT NULL,
  readings  INT          NOT NULL,
  undone_at DATETIME(3)  NULL,
  undone_by VARCHAR(80)  NULL,
  batch     BIGINT       NULL,
  KEY at (at)
);

-- Sessions, configurations, units and models that it made.
CREATE TABLE ledger_import_part (
  import_id BIGINT      NOT NULL,
  kind      VARCHAR(16) NOT NULL,
  part_id   BIGINT      NOT NULL,
  PRIMARY KEY (import_id, kind, part_id),
  CONSTRAINT part_of_import FOREIGN KEY (import_id) REFERENCES ledger_import (id) ON DELETE CASCADE
);
