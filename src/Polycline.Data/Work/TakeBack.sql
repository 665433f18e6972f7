-- Takes back what was handed in of a piece and not given back; of somebody else's only what was handed in together. What it held is being
-- written again by whoever takes it back, unless something else is already.
WITH taken AS (
  UPDATE work_version v SET taken_back_at = @at
  FROM work w
  WHERE w.id = v.work AND w.person = @person AND w.item = @item AND v.taken_back_at IS NULL AND v.handed_in_at <= @at
    AND (@person = @by OR v.together = @together)
    AND NOT EXISTS (SELECT 1 FROM feedback f WHERE f.work = v.work AND f.n >= v.n AND f.taken_back_at IS NULL)
  RETURNING v.n, v.text, v.files, v.links, v.entries, v.judged
), fact AS (
  INSERT INTO fact (person, item, section, event, at, recorded_at, by, request)
  SELECT @person, @item, @section, 'taken-back', @at, @at, @by, @request FROM taken
  -- Where something stands that was handed in before, it is handed in all the same.
  WHERE NOT EXISTS (SELECT 1 FROM work w JOIN work_version v ON v.work = w.id AND v.taken_back_at IS NULL
                    WHERE w.person = @person AND w.item = @item AND v.n NOT IN (SELECT n FROM taken))
  LIMIT 1
), again AS (
  INSERT INTO draft (person, item, text, files, links, entries, judged, saved_at)
  SELECT @person, @item, text, files, links, entries, judged, @at FROM taken WHERE @person = @by ORDER BY n DESC LIMIT 1
  ON CONFLICT (person, item) DO NOTHING
)
SELECT count(*)::int FROM taken
