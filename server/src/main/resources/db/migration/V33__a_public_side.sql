-- What the public front page says of a write-up: its kind, a description, and the photo that leads it. Null where none is known.
ALTER TABLE write_up ADD COLUMN kind VARCHAR(60) NULL;
ALTER TABLE edition ADD COLUMN description VARCHAR(300) NULL, ADD COLUMN photo CHAR(64) NULL;

-- Pictures that are drawn from an edition when they are first asked for. All of it can be drawn again.
CREATE TABLE edition_picture (
  edition_id BIGINT      NOT NULL,
  shape      VARCHAR(10) NOT NULL,
  bytes      MEDIUMBLOB  NOT NULL,
  PRIMARY KEY (edition_id, shape),
  CONSTRAINT edition_picture_of FOREIGN KEY (edition_id) REFERENCES edition (id) ON DELETE CASCADE
);

-- A standing that is saved may be on the front page, and may show what is measured now: by what it was asked.
ALTER TABLE frozen_standing
  ADD COLUMN listed BIT(1) NOT NULL DEFAULT b'0',
  ADD COLUMN living BIT(1) NOT NULL DEFAULT b'0',
  ADD COLUMN ask LONGTEXT NULL;
