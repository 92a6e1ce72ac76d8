-- The reviewer's own suites, and sessions whose scores a person types.

-- A mode is a part of what must match: 64 bit, off screen, eight threads. Empty where there is only one.
ALTER TABLE suite_version ADD COLUMN mode VARCHAR(120) NOT NULL DEFAULT '', ADD UNIQUE KEY suite_version_mode (suite_id, version, mode);
ALTER TABLE suite_version DROP INDEX suite_version_of;

ALTER TABLE session
  ADD COLUMN room_temperature DOUBLE NULL, ADD COLUMN recording BIT(1) NULL, ADD COLUMN remarks VARCHAR(1000) NULL;

-- What is to be carried out by hand in a session, in order.
CREATE TABLE session_test (
  session_id BIGINT NOT NULL,
  position   INT    NOT NULL,
  test_id    BIGINT NOT NULL,
  PRIMARY KEY (session_id, position),
  CONSTRAINT by_hand_session FOREIGN KEY (session_id) REFERENCES session (id),
  CONSTRAINT by_hand_test FOREIGN KEY (test_id) REFERENCES test (id)
);
