-- How many students of each section that follows an edition have handed in each of its items or ticked it off, up to a moment.
SELECT done.item, done.section, count(*)::int AS students
FROM (
  SELECT w.item, w.section, w.person
  FROM work w
  WHERE EXISTS (
    SELECT 1 FROM work_version v
    WHERE v.work = w.id AND v.handed_in_at <= @at AND (v.taken_back_at IS NULL OR v.taken_back_at > @at)
  )
  UNION
  SELECT last.item, last.section, last.person
  FROM (
    SELECT DISTINCT ON (f.person, f.item) f.person, f.item, f.section, f.event
    FROM fact f JOIN item i ON i.id = f.item AND i.edition = @edition
    WHERE f.event IN ('ticked', 'unticked') AND f.voided_at IS NULL AND f.at <= @at
    ORDER BY f.person, f.item, f.at DESC, f.id DESC
  ) last
  WHERE last.event = 'ticked'
) done
JOIN section s ON s.id = done.section AND s.edition = @edition
WHERE EXISTS (SELECT 1 FROM item i WHERE i.id = done.item AND i.edition = @edition)
GROUP BY done.item, done.section
ORDER BY done.item, done.section;
