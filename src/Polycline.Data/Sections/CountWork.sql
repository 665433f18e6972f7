-- How much work of a section's students hangs on each item of a course: handed in, scores, posts (none yet), feedback.
SELECT i.id AS item,
       (SELECT count(*) FROM work w JOIN work_version v ON v.work = w.id WHERE w.item = i.id AND w.section = @section)::int AS handed_in,
       (SELECT count(*) FROM fact f WHERE f.item = i.id AND f.section = @section AND f.event = 'scored' AND f.voided_at IS NULL)::int AS scores,
       0 AS posts,
       (SELECT count(*) FROM work w JOIN feedback b ON b.work = w.id WHERE w.item = i.id AND w.section = @section)::int AS feedback
FROM item i
WHERE i.edition = @edition AND i.removed_at IS NULL
