-- The notes of an edition, and what was left for next time in earlier editions of its course.
SELECT n.id, n.place::text, n.next_time, n.text, p.name AS author, n.written_at, n.version,
       CASE WHEN n.edition <> @edition THEN e.title END AS left_in
FROM team_note n
JOIN edition e ON e.id = n.edition
JOIN edition here ON here.id = @edition
JOIN person p ON p.id = n.author
WHERE n.removed_at IS NULL
  AND (n.edition = here.id
       OR (n.next_time AND e.master = here.master AND e.ordinal < here.ordinal
           AND n.place IN (SELECT lineage FROM unit WHERE edition = here.id UNION ALL SELECT lineage FROM lesson WHERE edition = here.id
                           UNION ALL SELECT lineage FROM item WHERE edition = here.id)))
ORDER BY n.edition <> @edition, n.written_at, n.id
