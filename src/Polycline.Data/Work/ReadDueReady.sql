-- Ready pieces whose moment has come, or of whose item nothing in their section waits that is not ready.
SELECT r.work, w.section, c.edition, e.version, t.version AS term_version, r.by, p.name AS by_name,
  EXISTS (SELECT 1 FROM section_teacher s WHERE s.section = w.section AND s.person = r.by)
    OR EXISTS (SELECT 1 FROM master_member m WHERE m.master = e.master AND m.person = r.by AND m.role = 'lead') AS may
FROM ready_mark r
JOIN work w ON w.id = r.work
JOIN section c ON c.id = w.section
JOIN edition e ON e.id = c.edition
JOIN term t ON t.id = e.term
JOIN person p ON p.id = r.by
WHERE r.goes_at <= @at OR (r.with_all AND NOT EXISTS (
  SELECT 1 FROM work o
  JOIN LATERAL (SELECT v.n FROM work_version v WHERE v.work = o.id AND v.taken_back_at IS NULL ORDER BY v.n DESC LIMIT 1) v ON true
  WHERE o.section = w.section AND o.item = w.item
    AND NOT EXISTS (SELECT 1 FROM feedback f WHERE f.work = o.id AND f.n = v.n AND f.taken_back_at IS NULL)
    AND NOT EXISTS (SELECT 1 FROM ready_mark q WHERE q.work = o.id AND q.n = v.n)))
ORDER BY r.at, r.work
LIMIT 200
