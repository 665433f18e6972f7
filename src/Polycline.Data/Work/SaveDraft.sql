INSERT INTO draft (person, item, text, files, links, entries, saved_at)
VALUES (@person, @item, @text, @files, @links, @entries::jsonb, @at)
ON CONFLICT (person, item) DO UPDATE
SET text = excluded.text, files = excluded.files, links = excluded.links, entries = excluded.entries, saved_at = excluded.saved_at, version = draft.version + 1
WHERE draft.version = @version
RETURNING version
