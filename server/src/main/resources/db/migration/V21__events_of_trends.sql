-- What somebody pins to a step of a trend, because no fact says it.
CREATE TABLE trend_event (
  id       BIGINT       NOT NULL AUTO_INCREMENT PRIMARY KEY,
  model_id BIGINT       NOT NULL,
  step_key VARCHAR(60)  NOT NULL COLLATE utf8mb4_bin,
  words    VARCHAR(200) NOT NULL,
  person   VARCHAR(80)  NOT NULL,
  at       DATETIME(3)  NOT NULL,
  KEY trend_event_model (model_id),
  CONSTRAINT trend_event_of_model FOREIGN KEY (model_id) REFERENCES model (id) ON DELETE CASCADE
);
