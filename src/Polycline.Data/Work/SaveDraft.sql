INSERT INTO draft (person, item, text, saved_at)
VALUES (@person, @item, @text, @at)
ON CONFLICT (person, item) DO UPDATE SET text = excluded.text, saved_at = excluded.saved_at, version = draft.version + 1
WHERE draft.version = @version
RETURNING version
