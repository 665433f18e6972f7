SELECT v.n, v.text, v.files, v.links, v.entries::text, v.judged::text, v.handed_in_at, v.claimed_at, CASE WHEN v.taken_back_at <= @at THEN v.taken_back_at END AS taken_back_at,
  b.name AS by, (SELECT array_agg(q.name ORDER BY q.name) FROM work_version o JOIN work x ON x.id = o.work JOIN person q ON q.id = x.person WHERE o.together = v.together AND o.work <> v.work) AS others
FROM work w
JOIN work_version v ON v.work = w.id
LEFT JOIN person b ON b.id = v.by
WHERE w.person = @person AND w.item = @item AND v.handed_in_at <= @at
ORDER BY v.n DESC;

SELECT text, files, links, entries::text, judged::text, saved_at, missed_at, claimed_at, version
FROM draft
WHERE person = @person AND item = @item AND saved_at <= @at;

SELECT f.id, f.name, encode(f.file, 'hex') AS hash, s.size, s.type, f.copy_of, t.text AS written, coalesce(f.file = i.file AND t.file IS NULL, false) AS as_given
FROM work_file f
JOIN stored_file s ON s.hash = f.file
LEFT JOIN copy_text t ON t.file = f.id
LEFT JOIN item_file i ON i.id = f.copy_of
WHERE f.id = ANY(ARRAY(
  SELECT unnest(v.files) FROM work w JOIN work_version v ON v.work = w.id WHERE w.person = @person AND w.item = @item AND v.handed_in_at <= @at
  UNION SELECT unnest(files) FROM draft WHERE person = @person AND item = @item AND saved_at <= @at));
