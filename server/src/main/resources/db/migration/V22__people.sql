-- More than one person, and more than one owner. Only the first owner's place is held by the database: of two first
-- visitors one gets it.
ALTER TABLE person
  DROP KEY person_owner,
  DROP COLUMN owner_place,
  ADD COLUMN founder TINYINT NULL,
  ADD COLUMN made_at DATETIME(3) NULL,
  ADD COLUMN removed_at DATETIME(3) NULL,
  MODIFY COLUMN password_hash VARCHAR(300) NOT NULL,
  ADD UNIQUE KEY person_founder (founder);
UPDATE person SET founder = 1 WHERE role = 'OWNER' ORDER BY id LIMIT 1;

-- Names that somebody had: records name who made them, so nobody else may take one.
CREATE TABLE former_name (
  name      VARCHAR(80) NOT NULL PRIMARY KEY,
  person_id BIGINT      NOT NULL,
  CONSTRAINT former_name_of FOREIGN KEY (person_id) REFERENCES person (id)
);

-- Where somebody is signed in. A browser's session is worth nothing without an open one.
CREATE TABLE signed_place (
  id         BIGINT       NOT NULL AUTO_INCREMENT PRIMARY KEY,
  person_id  BIGINT       NOT NULL,
  address    VARCHAR(64)  NOT NULL,
  agent      VARCHAR(200) NOT NULL,
  started_at DATETIME(3)  NOT NULL,
  last_at    DATETIME(3)  NOT NULL,
  ended_at   DATETIME(3)  NULL,
  KEY signed_place_open (ended_at, started_at),
  CONSTRAINT signed_place_of FOREIGN KEY (person_id) REFERENCES person (id)
);

-- A link that works once: to become somebody here, or to choose a new password.
CREATE TABLE invitation (
  id         BIGINT      NOT NULL AUTO_INCREMENT PRIMARY KEY,
  token_hash CHAR(64)    NOT NULL UNIQUE,
  role       VARCHAR(16) NULL,
  person_id  BIGINT      NULL,
  made_by    VARCHAR(80) NOT NULL,
  made_at    DATETIME(3) NOT NULL,
  expires_at DATETIME(3) NOT NULL,
  used_at    DATETIME(3) NULL,
  CONSTRAINT invitation_for FOREIGN KEY (person_id) REFERENCES person (id)
);

-- Keys for programs; only a hash of each is kept.
CREATE TABLE api_key (
  id           BIGINT      NOT NULL AUTO_INCREMENT PRIMARY KEY,
  name         VARCHAR(80) NOT NULL,
  scope        VARCHAR(16) NOT NULL,
  key_hash     CHAR(64)    NOT NULL UNIQUE,
  hint         VARCHAR(16) NOT NULL,
  person_id    BIGINT      NOT NULL,
  made_at      DATETIME(3) NOT NULL,
  expires_at   DATETIME(3) NOT NULL,
  last_at      DATETIME(3) NULL,
  last_address VARCHAR(64) NULL,
  ended_at     DATETIME(3) NULL,
  CONSTRAINT api_key_of FOREIGN KEY (person_id) REFERENCES person (id)
);
