-- Null: in the order of the plan. The seed gives the same order again.
ALTER TABLE plan ADD COLUMN shuffle_seed BIGINT NULL, ADD COLUMN cool_by_probe BIT(1) NOT NULL DEFAULT b'0';
-- What the device noticed while the run went on: another program, power that came or went. Null where it noticed nothing.
ALTER TABLE run ADD COLUMN disturbed VARCHAR(200) NULL;
