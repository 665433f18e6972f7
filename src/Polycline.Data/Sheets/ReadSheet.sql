-- The blocks of a sheet as they stood at a moment; what was taken out stands there without text.
SELECT b.id, b.rank, v.n, v.author, p.name AS by, v.text, v.at,
       (SELECT count(*)::int FROM sheet_block_version o WHERE o.block = b.id AND o.at <= @at AND o.author IS NOT NULL) AS changes
FROM sheet s
JOIN sheet_block b ON b.sheet = s.id
JOIN LATERAL (SELECT * FROM sheet_block_version v WHERE v.block = b.id AND v.at <= @at ORDER BY v.n DESC LIMIT 1) v ON true
LEFT JOIN person p ON p.id = v.author
WHERE s.item = @item AND s.section = @section
ORDER BY b.rank, b.id
