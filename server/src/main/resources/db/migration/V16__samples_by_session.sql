-- A sample is kept by session: runs of one session are not independent measurements of a device.
CREATE TABLE sample_by_session (
  configuration_id    BIGINT NOT NULL,
  metric_id           BIGINT NOT NULL,
  session_id          BIGINT NOT NULL,
  n                   INT    NOT NULL,
  mean                DOUBLE NOT NULL,
  sum_squares         DOUBLE NOT NULL,
  resolution_variance DOUBLE NOT NULL,
  PRIMARY KEY (configuration_id, metric_id, session_id),
  KEY sample_metric (metric_id)
);

-- What is there already is made anew from its readings, with the merits that the core computes.
INSERT INTO sample_by_session
SELECT configuration_id, metric_id, session_id, COUNT(*), AVG(merit), VAR_POP(merit) * COUNT(*), AVG(relative * relative) / 12
FROM (SELECT rd.configuration_id, rd.metric_id, r.session_id,
             (CASE WHEN m.scale = 'RATIO' THEN LN(rd.value) ELSE rd.value END)
               * (CASE WHEN m.direction = 'LESS_IS_BETTER' THEN -1 ELSE 1 END) AS merit,
             CASE WHEN m.scale = 'RATIO' THEN rd.resolution / rd.value ELSE rd.resolution END AS relative
      FROM reading rd JOIN run r ON r.id = rd.run_id JOIN metric m ON m.id = rd.metric_id
      WHERE NOT EXISTS (SELECT 1 FROM set_aside a WHERE a.reading_id = rd.id AND a.taken_back_at IS NULL)) counted
GROUP BY configuration_id, metric_id, session_id;

DROP TABLE sample;
RENAME TABLE sample_by_session TO sample;
ALTER TABLE sample
  ADD CONSTRAINT sample_configuration FOREIGN KEY (configuration_id) REFERENCES configuration (id),
  ADD CONSTRAINT sample_metric FOREIGN KEY (metric_id) REFERENCES metric (id);

-- How repeatable a test is said to be, in per cent, and by whom: it lends where nothing better is known.
ALTER TABLE test ADD COLUMN repeatability DOUBLE NULL, ADD COLUMN repeatability_source VARCHAR(300) NULL;
