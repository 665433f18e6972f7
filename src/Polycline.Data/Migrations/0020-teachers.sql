-- Who may make courses: whoever is on a team or teaches a section may already.
ALTER TABLE person ADD COLUMN teacher boolean NOT NULL DEFAULT false;
UPDATE person SET teacher = true WHERE id IN (SELECT person FROM master_member UNION SELECT person FROM section_teacher);
GRANT UPDATE (teacher) ON person TO polycline_app;
