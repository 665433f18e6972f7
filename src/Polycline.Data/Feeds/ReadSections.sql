WITH told AS (
  SELECT id AS section, NULL::date AS "from", NULL::date AS "to" FROM section WHERE @Kind = 'section-calendar' AND id = @Section::bigint
  UNION ALL
  SELECT section, NULL, NULL FROM section_teacher WHERE @Kind = 'teacher-calendar' AND person = @Person
  UNION ALL
  SELECT section, lower(period), upper(period) - 1 FROM place WHERE @Kind = 'student-calendar' AND person = @Person
)
SELECT c.id AS section, e.id AS edition, e.version AS edition_version, t.version AS term_version, told."from", told."to", coalesce(b.id, 0) AS batch, b.at AS changed_at,
       @Kind <> 'section-calendar' AND t.last < @at::date - 28 AS is_over
FROM told
JOIN section c ON c.id = told.section
JOIN edition e ON e.id = c.edition
JOIN term t ON t.id = c.term
LEFT JOIN LATERAL (
  SELECT id, at FROM batch
  WHERE (scope_kind = 'edition' AND scope = e.id) OR (scope_kind = 'term' AND scope = t.id)
  ORDER BY id DESC LIMIT 1
) b ON true
ORDER BY c.name, told."from" NULLS FIRST
