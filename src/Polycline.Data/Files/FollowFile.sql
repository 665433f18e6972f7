-- Gives the new bytes to every copy of a file's earlier or later forms that nobody has worked in and nobody has handed in.
UPDATE work_file f SET file = @hash, copy_of = @file
FROM item_file i, draft d
WHERE i.id = f.copy_of AND i.item = @item AND f.copy_of = ANY(@line) AND f.file = i.file
  AND d.item = @item AND f.id = ANY(d.files) AND d.missed_at IS NULL
  AND NOT EXISTS (SELECT 1 FROM copy_text t WHERE t.file = f.id)
  AND NOT EXISTS (SELECT 1 FROM work w JOIN work_version v ON v.work = w.id WHERE w.item = @item AND f.id = ANY(v.files))
  AND (f.file, f.copy_of) IS DISTINCT FROM (@hash, @file)
