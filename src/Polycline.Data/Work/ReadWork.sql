SELECT c.id
FROM section c
WHERE c.edition = @edition AND c.pretend IS NULL AND (@lead OR EXISTS (SELECT 1 FROM section_teacher st WHERE st.section = c.id AND st.person = @viewer));

SELECT w.section, w.id AS work, w.item, w.person, p.name, v.n, v.text, v.files, v.links, v.entries::text, v.judged::text, v.handed_in_at, v.claimed_at, false AS missed, f.text AS feedback, f.again, f.mark::text, f.remarks::text, f.returned_at, r.ready,
  (SELECT array_agg(q.name ORDER BY q.name) FROM work_version o JOIN work x ON x.id = o.work JOIN person q ON q.id = x.person WHERE o.together = v.together AND o.work <> v.work) AS others
FROM section c
JOIN work w ON w.section = c.id
JOIN person p ON p.id = w.person
JOIN LATERAL (SELECT * FROM work_version v WHERE v.work = w.id AND v.handed_in_at <= @at AND (v.taken_back_at IS NULL OR v.taken_back_at > @at) ORDER BY v.n DESC LIMIT 1) v ON true
LEFT JOIN LATERAL (SELECT * FROM feedback f WHERE f.work = w.id AND f.n = v.n AND f.returned_at <= @at AND (f.taken_back_at IS NULL OR f.taken_back_at > @at) ORDER BY f.id DESC LIMIT 1) f ON true
LEFT JOIN LATERAL (
  SELECT jsonb_agg(jsonb_build_object('By', m.by, 'Name', q.name, 'At', extract(epoch FROM m.at), 'Words', m.words, 'Request', m.request,
    'GoesAt', extract(epoch FROM m.goes_at), 'WithAll', m.with_all) ORDER BY m.at, m.by)::text AS ready
  FROM ready_mark m JOIN person q ON q.id = m.by WHERE m.work = w.id AND m.n = v.n AND m.at <= @at) r ON true
WHERE c.edition = @edition AND (@lead OR EXISTS (SELECT 1 FROM section_teacher st WHERE st.section = c.id AND st.person = @viewer))
UNION ALL
SELECT n.section, NULL, d.item, d.person, p.name, 0, d.text, d.files, d.links, d.entries::text, d.judged::text, d.missed_at, d.claimed_at, true, NULL, NULL, NULL, NULL, NULL, NULL, NULL
FROM section c
JOIN (SELECT DISTINCT section, person FROM enrolment) n ON n.section = c.id
JOIN draft d ON d.person = n.person AND d.missed_at <= @at
JOIN item i ON i.id = d.item AND i.edition = c.edition
JOIN person p ON p.id = d.person
WHERE c.edition = @edition AND (@lead OR EXISTS (SELECT 1 FROM section_teacher st WHERE st.section = c.id AND st.person = @viewer))
ORDER BY returned_at DESC NULLS FIRST, handed_in_at, name;

SELECT f.id, f.name, encode(f.file, 'hex') AS hash, s.size, s.type
FROM work_file f
JOIN stored_file s ON s.hash = f.file
WHERE f.id IN (
  SELECT unnest(v.files) FROM section c JOIN work w ON w.section = c.id JOIN work_version v ON v.work = w.id AND v.files IS NOT NULL
  WHERE c.edition = @edition AND (@lead OR EXISTS (SELECT 1 FROM section_teacher st WHERE st.section = c.id AND st.person = @viewer))
  UNION ALL SELECT unnest(d.files) FROM draft d JOIN item i ON i.id = d.item AND i.edition = @edition WHERE d.missed_at <= @at AND d.files IS NOT NULL
);

-- As long as ReaderStore.Lasts says.
SELECT r.item, r.person, p.name AS by, r.at AS since
FROM reader r
JOIN item i ON i.id = r.item AND i.edition = @edition
JOIN person p ON p.id = r.by
WHERE r.by <> @viewer AND r.at <= @at AND r.at > @at - interval '30 minutes';
