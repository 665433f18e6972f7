-- Which of some items have all words somewhere in title, text or files, the best first; of each the place that has most of them.
WITH asked AS (
  SELECT to_tsquery('english', @all) AS whole, to_tsquery('english', @any) AS part
), parts AS (
  SELECT i.id AS item, 'title' AS place, NULL::text AS file, i.title AS text, to_tsvector('english', i.title) AS words, 'A'::"char" AS weight
  FROM item i
  WHERE i.id = ANY(@items)
  UNION ALL
  SELECT i.id, 'text', NULL, t.text, to_tsvector('english', t.text), 'C'
  FROM item i
  JOIN body b ON b.hash = i.body
  CROSS JOIN LATERAL (SELECT regexp_replace(b.data ->> 'Html', '<("[^"]*"|[^">])*>', ' ', 'g') AS text) t
  WHERE i.id = ANY(@items)
  UNION ALL
  SELECT f.item, 'file', f.name, n.text, to_tsvector('english', n.text), 'B'
  FROM item_file f
  CROSS JOIN LATERAL (SELECT translate(f.name, '._-', '   ') AS text) n
  WHERE f.item = ANY(@items) AND f.removed_at IS NULL
  UNION ALL
  SELECT f.item, 'file', f.name, t.text, t.words, 'D'
  FROM item_file f
  JOIN file_text t ON t.file = f.file
  WHERE f.item = ANY(@items) AND f.removed_at IS NULL AND t.text <> ''
), weighed AS (
  SELECT p.*, setweight(p.words, p.weight) AS value, ts_rank(p.words, a.part) AS here
  FROM parts p, asked a
  WHERE p.words @@ a.part
), best AS (
  SELECT DISTINCT ON (w.item) w.item, w.place, w.file, w.text
  FROM weighed w
  -- What stands in the title is seen anyway.
  ORDER BY w.item, (w.place = 'title'), w.here DESC, w.file
), whole AS (
  SELECT w.item, sum(ts_rank(w.value, a.part)) AS rank
  FROM weighed w, asked a
  GROUP BY w.item, a.whole
  HAVING words_together(w.words) @@ a.whole
)
SELECT b.item, b.place, b.file,
       ts_headline('english', b.text, a.part, 'StartSel=' || chr(2) || ', StopSel=' || chr(3) || ', MaxWords=26, MinWords=10, MaxFragments=1') AS words
FROM whole w
JOIN best b ON b.item = w.item
CROSS JOIN asked a
ORDER BY w.rank DESC, b.item
LIMIT @most
