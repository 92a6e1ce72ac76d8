-- From where on a value is good, and from where on poor, as the lab says it; null: by thirds of those placed.
ALTER TABLE metric ADD COLUMN good_limit DOUBLE NULL, ADD COLUMN poor_limit DOUBLE NULL;
