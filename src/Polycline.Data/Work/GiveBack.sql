WITH written AS (
  INSERT INTO feedback (work, n, by, text, again, mark, remarks, returned_at) VALUES (@work, @n, @by, @text, @again, @mark::jsonb, @remarks::jsonb, @at)
)
INSERT INTO fact (person, item, section, event, at, recorded_at, by, again, score, request)
SELECT @person, @item, @section, e.event, @at, @at, @by, e.again, e.score, e.request
FROM (VALUES (1, 'returned', @again, NULL, @request), (2, 'scored', false, @score::numeric, gen_random_uuid())) e (place, event, again, score, request)
WHERE e.place = 1 OR e.score IS NOT NULL
ORDER BY e.place
