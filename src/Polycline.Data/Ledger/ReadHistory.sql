SELECT b.id, b.version, b.command, b.words, b.author, p.name AS author_name, b.at, b.undoes, undo_depth(b.id) AS depth, u.id AS undone_by,
       ARRAY(SELECT (i.key ->> 'id')::bigint FROM change i WHERE i.batch = b.id AND i.tbl = 'item' ORDER BY i.n) AS items
FROM batch b
JOIN person p ON p.id = b.author
LEFT JOIN batch u ON u.undoes = b.id
WHERE b.scope_kind = @Kind AND b.scope = @Key
ORDER BY b.version DESC
LIMIT @most
