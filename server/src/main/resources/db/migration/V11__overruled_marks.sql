-- A mark that takes readings out of totals is a suggestion: somebody may decide against it, with a reason, and take that back.
CREATE TABLE mark_overrule (
  id               BIGINT AUTO_INCREMENT PRIMARY KEY,
  configuration_id BIGINT       NOT NULL,
  metric_id        BIGINT       NOT NULL,
  reason           VARCHAR(500) NOT NULL,
  person           VARCHAR(80)  NOT NULL,
  at               DATETIME(3)  NOT NULL,
  taken_back_at    DATETIME(3)  NULL,
  taken_back_by    VARCHAR(80)  NULL,
  KEY overrule_of (configuration_id, metric_id, taken_back_at),
  CONSTRAINT overrule_configuration FOREIGN KEY (configuration_id) REFERENCES configuration (id),
  CONSTRAINT overrule_metric FOREIGN KEY (metric_id) REFERENCES metric (id)
);
