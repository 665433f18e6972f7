WITH written AS (
  INSERT INTO feedback (work, n, by, text, again, returned_at) VALUES (@work, @n, @by, @text, @again, @at)
)
INSERT INTO fact (person, item, section, event, at, recorded_at, by, again, request)
VALUES (@person, @item, @section, 'returned', @at, @at, @by, @again, @request)
