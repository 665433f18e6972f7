SELECT tbl, key::text, before::text, after::text
FROM change
WHERE batch = @batch
ORDER BY n
