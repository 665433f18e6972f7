SELECT DISTINCT p.name, c.id AS section, e.id AS edition,
       EXISTS (SELECT 1 FROM section_teacher st WHERE st.section = c.id AND st.person = @viewer) AS taught_by_viewer
FROM person p
JOIN place n ON n.person = p.id
JOIN section c ON c.id = n.section
JOIN edition e ON e.id = c.edition
WHERE p.id = @student AND p.removed_at IS NULL AND e.master = @master
