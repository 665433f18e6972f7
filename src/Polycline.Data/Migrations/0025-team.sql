-- What somebody is to a course: leads answer for all of it, co-teachers write it and teach some of its sections, others only teach
-- sections of it, readers change nothing.
ALTER TABLE master_member DROP CONSTRAINT master_member_role_check;
ALTER TABLE master_member ADD CONSTRAINT master_member_role_check CHECK (role IN ('lead', 'co', 'sections', 'reader'));
GRANT SELECT, INSERT, UPDATE, DELETE ON master_member TO polycline_app;
