-- The rubrics of a person's courses, each with where it was used last and how often.
SELECT b.data ->> 'Rubric' AS content, used.place, used.items
FROM (
  SELECT i.rubric, max(i.id) AS latest, count(*)::int AS items,
    (array_agg(m.title || ', ' || e.title || ', ' || i.title ORDER BY i.id DESC))[1] AS place
  FROM item i
  JOIN edition e ON e.id = i.edition
  JOIN master m ON m.id = e.master
  WHERE i.rubric IS NOT NULL AND i.removed_at IS NULL
    AND EXISTS (SELECT 1 FROM master_member t WHERE t.master = m.id AND t.person = @person)
  GROUP BY i.rubric
) used
JOIN body b ON b.hash = used.rubric
ORDER BY used.latest DESC
LIMIT @most
