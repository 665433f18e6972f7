WITH version AS (
  INSERT INTO work_version (work, n, text, files, links, entries, judged, handed_in_at, claimed_at, request, together, by)
  VALUES (@work, 1 + coalesce((SELECT max(n) FROM work_version WHERE work = @work), 0), @text, @files, @links, @entries::jsonb, @judged::jsonb, @at, @claimed, @request,
          @together, nullif(@by, @person))
  RETURNING n
), submitted AS (
  INSERT INTO fact (person, item, section, event, at, recorded_at, by, request)
  VALUES (@person, @item, @section, 'submitted', @at, @at, @by, @request)
), handed AS (
  -- What the others are writing themselves stays theirs.
  DELETE FROM draft WHERE person = @person AND item = @item AND @person = @by
)
SELECT n FROM version
