SELECT f.id, f.item, f.rank, f.name, encode(f.file, 'hex') AS hash, s.size, s.type, f.replaces, p.name AS brought_by, f.brought_at,
       f.removed_at IS NOT NULL AS removed, f.given, f.copy_name, f.version
FROM item_file f
JOIN stored_file s ON s.hash = f.file
JOIN person p ON p.id = f.brought_by
WHERE f.item = @item
ORDER BY f.removed_at IS NOT NULL, f.rank, f.id
