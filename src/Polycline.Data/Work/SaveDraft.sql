INSERT INTO draft (person, item, text, files, links, entries, judged, saved_at)
VALUES (@person, @item, @text, @files, @links, @entries::jsonb, @judged::jsonb, @at)
ON CONFLICT (person, item) DO UPDATE
SET text = excluded.text, files = excluded.files, links = excluded.links, entries = excluded.entries, judged = excluded.judged, saved_at = excluded.saved_at, version = draft.version + 1
WHERE draft.version = @version
RETURNING version
