SELECT p.id AS person, p.name AS person_name, p.office, p.teacher,
       e.id AS edition, e.master, e.state AS edition_state, e.version AS edition_version, m.role AS member_role,
       c.id AS section, c.version AS section_version, st.person IS NOT NULL AS teaches_section,
       ARRAY(SELECT ts.section FROM section_teacher ts WHERE ts.person = p.id ) AS teaches,
       n.enrolled_from, n.enrolled_to,
       t.id AS term, t.version AS term_version,
       coalesce(t.zone, (SELECT zone FROM term ORDER BY last DESC, id DESC LIMIT 1)) AS term_zone
FROM session s
JOIN person p ON p.id = s.person AND p.removed_at IS NULL
LEFT JOIN section c ON c.id = @section
LEFT JOIN edition e ON e.id = coalesce(@edition, c.edition)
LEFT JOIN master_member m ON m.master = e.master AND m.person = p.id
LEFT JOIN section_teacher st ON st.section = c.id AND st.person = p.id
LEFT JOIN term t ON t.id = coalesce(@term, c.term, e.term)
LEFT JOIN LATERAL (
  SELECT array_agg(coalesce(lower(period), '0001-01-01') ORDER BY period) AS enrolled_from,
         array_agg(coalesce(upper(period), '9999-12-31') - 1 ORDER BY period) AS enrolled_to
  FROM place
  WHERE section = c.id AND person = p.id
) n ON true
WHERE s.token_hash = @token AND s.expires_at > @now
