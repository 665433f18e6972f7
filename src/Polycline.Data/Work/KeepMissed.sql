INSERT INTO draft (person, item, text, saved_at, missed_at, claimed_at)
VALUES (@person, @item, @text, @at, @at, @claimed)
ON CONFLICT (person, item) DO UPDATE
SET text = excluded.text, saved_at = excluded.saved_at, missed_at = excluded.missed_at, claimed_at = excluded.claimed_at, version = draft.version + 1
