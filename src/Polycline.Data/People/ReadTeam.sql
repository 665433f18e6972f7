-- The team of a course, leads first; then its sections in this edition, with who teaches each.
SELECT p.id AS person, p.name, p.email::text, m.role, p.removed_at IS NOT NULL AS removed, p.password_hash = '' AS invited
FROM edition e
JOIN master_member m ON m.master = e.master
JOIN person p ON p.id = m.person
WHERE e.id = @edition
ORDER BY array_position(ARRAY['lead', 'co', 'sections', 'reader'], m.role), p.name;

SELECT c.id, c.name, c.letter, (SELECT count(DISTINCT n.person) FROM place n WHERE n.section = c.id)::int AS students,
       ARRAY(SELECT st.person FROM section_teacher st WHERE st.section = c.id) AS teachers
FROM section c
WHERE c.edition = @edition AND c.pretend IS NULL
ORDER BY c.name;
