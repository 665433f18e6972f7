-- The copies that students have of an item's files, a row for each student and file. Once one is handed in it is as it is.
WITH own AS (
  SELECT d.person, f.copy_of, f.file = i.file AND t.file IS NULL
           AND NOT EXISTS (SELECT 1 FROM work w JOIN work_version v ON v.work = w.id WHERE w.person = d.person AND w.item = d.item AND f.id = ANY(v.files)) AS as_given
  FROM draft d
  JOIN work_file f ON f.id = ANY(d.files)
  JOIN item_file i ON i.id = f.copy_of
  LEFT JOIN copy_text t ON t.file = f.id
  WHERE d.item = @item
  UNION ALL
  SELECT w.person, f.copy_of, false
  FROM work w
  JOIN work_version v ON v.work = w.id
  JOIN work_file f ON f.id = ANY(v.files) AND f.copy_of IS NOT NULL
  WHERE w.item = @item
)
SELECT copy_of AS "of", person, bool_and(as_given) AS as_given
FROM own
GROUP BY copy_of, person
