-- A browser keeps a token; who is signed in is known by its hash, also after the program was killed.
ALTER TABLE signed_place ADD COLUMN token_hash CHAR(64) NULL;
CREATE UNIQUE INDEX signed_place_token ON signed_place (token_hash);
-- Those of before were known by a session in memory alone.
UPDATE signed_place SET ended_at = UTC_TIMESTAMP(3) WHERE ended_at IS NULL;
