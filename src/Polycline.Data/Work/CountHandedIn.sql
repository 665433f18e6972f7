-- How many students of each section that follows an edition have handed in each of its items, up to a moment.
SELECT w.item, w.section, count(*)::int AS students
FROM work w
JOIN section s ON s.id = w.section AND s.edition = @edition
WHERE EXISTS (
    SELECT 1 FROM work_version v
    WHERE v.work = w.id AND v.handed_in_at <= @at AND (v.taken_back_at IS NULL OR v.taken_back_at > @at)
  )
  AND EXISTS (SELECT 1 FROM item i WHERE i.id = w.item AND i.edition = @edition)
GROUP BY w.item, w.section
ORDER BY w.item, w.section;
