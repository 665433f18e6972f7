-- A score for a student and an item: for what they handed in last, else for what they did on paper. What was written before stays with it.
WITH piece AS (
  INSERT INTO work (person, item, section) VALUES (@person, @item, @section)
  ON CONFLICT (person, item) DO UPDATE SET section = work.section
  RETURNING id
), latest AS (
  SELECT p.id, (SELECT max(v.n) FROM work_version v WHERE v.work = p.id AND v.taken_back_at IS NULL) AS n FROM piece p
), written AS (
  INSERT INTO feedback (work, n, by, text, remarks, again, mark, returned_at, given)
  SELECT l.id, l.n, @by, coalesce(b.text, ''), b.remarks, false, @mark::jsonb, @at, @given
  FROM latest l
  LEFT JOIN LATERAL (SELECT f.text, f.remarks FROM feedback f WHERE f.work = l.id AND f.n = l.n AND f.taken_back_at IS NULL ORDER BY f.id DESC LIMIT 1) b ON true
)
INSERT INTO fact (person, item, section, event, at, recorded_at, by, score, request, given)
SELECT @person, @item, @section, e.event, @at, @at, @by, e.score, gen_random_uuid(), @given
FROM (VALUES (1, 'returned', NULL), (2, 'scored', @score::numeric)) e (place, event, score)
WHERE e.place = 1 OR e.score IS NOT NULL
ORDER BY e.place
