-- Facts of the configuration that a computed value needs besides other metrics, such as the clock. The name is that in the formula.
CREATE TABLE metric_fact (
  metric_id BIGINT      NOT NULL,
  name      VARCHAR(60) NOT NULL COLLATE utf8mb4_bin,
  fact_key  VARCHAR(80) NOT NULL COLLATE utf8mb4_bin,
  PRIMARY KEY (metric_id, name),
  CONSTRAINT fact_metric FOREIGN KEY (metric_id) REFERENCES metric (id)
);
