-- Other work that went on during a session is a condition of it, as power and recording are.
ALTER TABLE session ADD COLUMN other_work BIT(1) NULL;
