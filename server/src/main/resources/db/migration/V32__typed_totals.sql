-- A total that a person types, of which is known how the suite makes it from its parts. And a computed value that is still to
-- be computed for sessions that were there before it.
ALTER TABLE metric ADD COLUMN typed BIT(1) NOT NULL DEFAULT b'0', ADD COLUMN behind BIT(1) NOT NULL DEFAULT b'0';
