-- What a change found is what the change before it left.
WITH steps AS (
  SELECT c.tbl, c.key, f.key AS field, c.batch, c.before -> f.key AS before,
         lag(c.after -> f.key) OVER step AS left_before, lag(c.batch) OVER step AS earlier
  FROM change c, jsonb_object_keys(coalesce(c.before, '{}') || coalesce(c.after, '{}')) f (key)
  WINDOW step AS (PARTITION BY c.tbl, c.key, f.key ORDER BY c.batch, c.n)
)
SELECT format('%s %s: %s was %s when batch %s came, though batch %s had left it %s', tbl, key, field, before, batch, earlier, left_before)
FROM steps
WHERE earlier IS NOT NULL AND before IS DISTINCT FROM left_before
