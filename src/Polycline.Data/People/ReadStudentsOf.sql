SELECT c.id AS section, c.name AS section_name, c.letter, p.id AS student, p.name
FROM section c
LEFT JOIN place n ON n.section = c.id
LEFT JOIN person p ON p.id = n.person AND p.removed_at IS NULL
WHERE c.edition = @edition AND (@lead OR c.pretend IS NOT NULL OR EXISTS (SELECT 1 FROM section_teacher st WHERE st.section = c.id AND st.person = @viewer))
GROUP BY c.id, p.id
ORDER BY c.name, p.name
