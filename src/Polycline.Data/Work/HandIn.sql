WITH version AS (
  INSERT INTO work_version (work, n, text, files, links, entries, handed_in_at, claimed_at, request)
  VALUES (@work, 1 + coalesce((SELECT max(n) FROM work_version WHERE work = @work), 0), @text, @files, @links, @entries::jsonb, @at, @claimed, @request)
  RETURNING n
), submitted AS (
  INSERT INTO fact (person, item, section, event, at, recorded_at, by, request)
  VALUES (@person, @item, @section, 'submitted', @at, @at, @person, @request)
), handed AS (
  DELETE FROM draft WHERE person = @person AND item = @item
)
SELECT n FROM version
