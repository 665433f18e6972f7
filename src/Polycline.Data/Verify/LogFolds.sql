-- The last value that the log gives a field is the one in the row.
WITH present AS (
  SELECT 'unit' AS tbl, jsonb_build_object('id', id) AS key, to_jsonb(t) AS row FROM unit t
  UNION ALL SELECT 'lesson', jsonb_build_object('id', id), to_jsonb(t) FROM lesson t
  UNION ALL SELECT 'item', jsonb_build_object('id', id), to_jsonb(t) FROM item t
  UNION ALL SELECT 'item_file', jsonb_build_object('id', id), to_jsonb(t) FROM item_file t
  UNION ALL SELECT 'team_note', jsonb_build_object('id', id), to_jsonb(t) FROM team_note t
  UNION ALL SELECT 'section', jsonb_build_object('id', id), to_jsonb(t) FROM section t
  UNION ALL SELECT 'adjustment', jsonb_build_object('section', section, 'target', target, 'field', field), to_jsonb(t) FROM adjustment t
  UNION ALL SELECT 'taught', jsonb_build_object('section', section, 'lesson', lesson), to_jsonb(t) FROM taught t
  UNION ALL SELECT 'order_change', jsonb_build_object('section', section, 'seq', seq), to_jsonb(t) FROM order_change t
  UNION ALL SELECT 'meeting_change', jsonb_build_object('section', section, 'seq', seq), to_jsonb(t) FROM meeting_change t
  UNION ALL SELECT 'student_group', jsonb_build_object('id', id), to_jsonb(t) FROM student_group t
  UNION ALL SELECT 'in_group', jsonb_build_object('student_group', student_group, 'person', person), to_jsonb(t) FROM in_group t
  UNION ALL SELECT 'home', jsonb_build_object('edition', edition, 'person', person), to_jsonb(t) FROM home t
  UNION ALL SELECT 'exception', jsonb_build_object('edition', edition, 'person', person, 'item', item, 'field', field, 'move', move), to_jsonb(t) FROM exception t
  UNION ALL SELECT 'arrangement', jsonb_build_object('edition', edition, 'person', person), to_jsonb(t) FROM arrangement t
  UNION ALL SELECT 'master', jsonb_build_object('id', id), to_jsonb(t) FROM master t
  UNION ALL SELECT 'edition', jsonb_build_object('id', id), to_jsonb(t) FROM edition t
  UNION ALL SELECT 'term', jsonb_build_object('id', id), to_jsonb(t) FROM term t
  UNION ALL SELECT 'calendar_day', jsonb_build_object('id', id), to_jsonb(t) FROM calendar_day t
), logged AS (
  SELECT DISTINCT ON (c.tbl, c.key, f.key) c.tbl, c.key, f.key AS field, f.value, c.after IS NULL AS gone
  FROM change c, jsonb_each(coalesce(c.after, c.before)) f
  -- A roster writes places past the log.
  WHERE c.tbl <> 'enrolment'
  ORDER BY c.tbl, c.key, f.key, c.batch DESC, c.n DESC
)
SELECT format('%s %s: the log says %s is %s, the row says %s', l.tbl, l.key, l.field, CASE WHEN l.gone THEN 'gone' ELSE l.value::text END, coalesce((p.row -> l.field)::text, 'nothing'))
FROM logged l
LEFT JOIN present p ON p.tbl = l.tbl AND p.key = l.key
-- What is of one section only goes out of sight, and comes back, with the section.
WHERE NOT (l.field = 'removed_at' AND p.row -> 'section' IS NOT NULL AND p.row -> 'section' <> 'null' AND l.tbl IN ('unit', 'lesson', 'item'))
  AND CASE WHEN l.gone THEN p.row IS NOT NULL ELSE p.row IS NULL OR p.row -> l.field IS DISTINCT FROM l.value END
