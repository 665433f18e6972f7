-- A section by itself, as it stands before it follows a course.
SELECT c.id, c.name, c.term, c.edition, c.version, c.slots::text, c.follows_from,
       ARRAY(SELECT person FROM section_teacher st WHERE st.section = c.id) AS teachers
FROM section c
WHERE c.id = @section
FOR UPDATE;

SELECT n.id AS place, n.person, lower(n.period) AS "from", upper(n.period) - 1 AS "to", n.version
FROM enrolment n
WHERE n.section = @section
ORDER BY n.person, n.period;

SELECT change::text FROM meeting_change WHERE section = @section ORDER BY seq;

SELECT p.id, p.name FROM person p WHERE p.id IN (SELECT person FROM enrolment WHERE section = @section);
