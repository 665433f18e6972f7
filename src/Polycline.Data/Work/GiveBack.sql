WITH written AS (
  INSERT INTO feedback (work, n, by, text, again, mark, returned_at) VALUES (@work, @n, @by, @text, @again, @mark::jsonb, @at)
), given AS (
  INSERT INTO fact (person, item, section, event, at, recorded_at, by, again, request)
  VALUES (@person, @item, @section, 'returned', @at, @at, @by, @again, @request)
)
INSERT INTO fact (person, item, section, event, at, recorded_at, by, score, request)
SELECT @person, @item, @section, 'scored', @at, @at, @by, @score::numeric, gen_random_uuid() WHERE @score::numeric IS NOT NULL
