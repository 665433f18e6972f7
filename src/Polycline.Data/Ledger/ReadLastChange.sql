SELECT b.id, b.version, b.command, b.words, b.author, p.name AS author_name, b.at, b.undoes, undo_depth(b.id) AS depth, NULL::bigint AS undone_by,
       ARRAY(SELECT (i.key ->> 'id')::bigint FROM change i WHERE i.batch = b.id AND i.tbl = 'item' ORDER BY i.n) AS items
FROM change c
JOIN batch b ON b.id = c.batch
JOIN person p ON p.id = b.author
WHERE c.tbl = @tbl AND c.key = @key::jsonb
  AND coalesce(c.after, c.before) ?| @fields
ORDER BY b.id DESC
LIMIT 1
