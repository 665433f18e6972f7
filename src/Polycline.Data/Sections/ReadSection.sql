SELECT c.id, c.name, m.title AS course, t.name AS term_name, t.first, t.last, c.pretend IS NOT NULL AS pretend,
       ARRAY(SELECT p.name FROM section_teacher st JOIN person p ON p.id = st.person WHERE st.section = c.id ORDER BY p.name) AS teachers
FROM section c
JOIN term t ON t.id = c.term
LEFT JOIN edition e ON e.id = c.edition
LEFT JOIN master m ON m.id = e.master
WHERE c.id = @section
