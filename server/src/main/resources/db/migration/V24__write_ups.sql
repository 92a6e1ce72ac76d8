-- What the readers get: a page made of pieces, each changed by itself, and its editions, which never change.
CREATE TABLE write_up (
  id         BIGINT        NOT NULL AUTO_INCREMENT PRIMARY KEY,
  title      VARCHAR(200)  NOT NULL,
  subtitle   VARCHAR(400)  NULL,
  public_key CHAR(24)      NOT NULL COLLATE utf8mb4_bin UNIQUE,
  listed     BIT(1)        NOT NULL,
  made_by    VARCHAR(80)   NOT NULL,
  made_at    DATETIME(3)   NOT NULL,
  changed_at DATETIME(3)   NOT NULL,
  removed_at DATETIME(3)   NULL,
  draft_hash CHAR(64)      NULL UNIQUE,
  draft_page LONGTEXT      NULL,
  draft_at   DATETIME(3)   NULL,
  revision   INT           NOT NULL
);

-- Which models it is about: what a model's page lists.
CREATE TABLE write_up_model (
  write_up_id BIGINT NOT NULL,
  model_id    BIGINT NOT NULL,
  PRIMARY KEY (write_up_id, model_id),
  KEY write_up_of_model (model_id),
  CONSTRAINT write_up_model_of FOREIGN KEY (write_up_id) REFERENCES write_up (id),
  CONSTRAINT write_up_model_model FOREIGN KEY (model_id) REFERENCES model (id)
);

CREATE TABLE write_up_piece (
  id          BIGINT      NOT NULL AUTO_INCREMENT PRIMARY KEY,
  write_up_id BIGINT      NOT NULL,
  place       DOUBLE      NOT NULL,
  kind        VARCHAR(16) NOT NULL,
  body        LONGTEXT    NOT NULL,
  revision    INT         NOT NULL,
  changed_by  VARCHAR(80) NOT NULL,
  changed_at  DATETIME(3) NOT NULL,
  removed_at  DATETIME(3) NULL,
  KEY piece_of (write_up_id, place),
  CONSTRAINT piece_write_up FOREIGN KEY (write_up_id) REFERENCES write_up (id)
);

-- As it was published: the page, and what it was made from. Never updated and never deleted.
CREATE TABLE edition (
  id           BIGINT        NOT NULL AUTO_INCREMENT PRIMARY KEY,
  write_up_id  BIGINT        NOT NULL,
  number       INT           NOT NULL,
  title        VARCHAR(200)  NOT NULL,
  changes      VARCHAR(1000) NULL,
  page         LONGTEXT      NOT NULL,
  content      LONGTEXT      NOT NULL,
  person       VARCHAR(80)   NOT NULL,
  published_at DATETIME(3)   NOT NULL,
  UNIQUE KEY edition_number (write_up_id, number),
  CONSTRAINT edition_write_up FOREIGN KEY (write_up_id) REFERENCES write_up (id)
);

-- Pictures that an edition shows: whoever reads it may see these, and no others.
CREATE TABLE edition_file (
  edition_id BIGINT   NOT NULL,
  hash       CHAR(64) NOT NULL,
  PRIMARY KEY (edition_id, hash),
  CONSTRAINT edition_file_of FOREIGN KEY (edition_id) REFERENCES edition (id),
  CONSTRAINT edition_file_file FOREIGN KEY (hash) REFERENCES stored_file (hash)
);
