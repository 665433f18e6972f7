-- What somebody has remarked in margins and said in a few words: first what was said of this item, then what was said most often, then last.
WITH mine AS (
  SELECT f.id, f.work, f.text, f.remarks FROM feedback f
  WHERE f.by = @viewer AND f.taken_back_at IS NULL AND f.returned_at <= @at
  ORDER BY f.id DESC LIMIT 2000
), said AS (
  SELECT m.id, m.work, r ->> 'text' AS text FROM mine m CROSS JOIN LATERAL jsonb_array_elements(m.remarks) r
  UNION ALL SELECT m.id, m.work, m.text FROM mine m WHERE m.text <> '' AND length(m.text) <= 300
)
SELECT s.text, bool_or(i.lineage = (SELECT lineage FROM item WHERE id = @item)) AS here
FROM said s JOIN work w ON w.id = s.work JOIN item i ON i.id = w.item
GROUP BY s.text
ORDER BY here DESC, count(DISTINCT s.work) DESC, max(s.id) DESC
LIMIT 300
