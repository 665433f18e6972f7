SELECT p.name, b.words
FROM change c
JOIN batch b ON b.id = c.batch
JOIN person p ON p.id = b.author
WHERE c.tbl = $1 AND c.key = $2 AND b.id > $3
  AND coalesce(c.after, c.before) ?| $4
ORDER BY b.id DESC
LIMIT 1
