-- The edition's version is its counter; this one is raised when its own settings are changed.
ALTER TABLE edition ADD COLUMN own_version bigint NOT NULL DEFAULT 1;
-- When every item was given its code for good: the edition had opened something to students.
ALTER TABLE edition ADD COLUMN codes_fixed_at timestamptz;

GRANT UPDATE (codes, before, own_version, codes_fixed_at) ON edition TO polycline_app;
