-- When a student took a hand-in back before anyone had given it back. What was handed in stays as it was.
ALTER TABLE work_version ADD COLUMN taken_back_at timestamptz;
ALTER TABLE work_version ADD CONSTRAINT work_version_taken_back_at CHECK (taken_back_at >= handed_in_at AND taken_back_at <= '3000-01-01 00:00:00Z');
GRANT UPDATE (taken_back_at) ON work_version TO polycline_app;
