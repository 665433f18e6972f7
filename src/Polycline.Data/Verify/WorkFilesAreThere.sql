-- What a draft or a hand-in lists is there.
SELECT format('hand-in %s of piece %s lists file %s, which is not there', v.n, v.work, f) FROM work_version v, unnest(v.files) f
WHERE NOT EXISTS (SELECT 1 FROM work_file w WHERE w.id = f)
UNION ALL
SELECT format('the draft of person %s on item %s lists file %s, which is not there', d.person, d.item, f) FROM draft d, unnest(d.files) f
WHERE NOT EXISTS (SELECT 1 FROM work_file w WHERE w.id = f)
