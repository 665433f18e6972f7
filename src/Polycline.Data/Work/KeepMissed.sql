INSERT INTO draft (person, item, text, files, links, entries, judged, saved_at, missed_at, claimed_at)
VALUES (@person, @item, @text, @files, @links, @entries::jsonb, @judged::jsonb, @at, @at, @claimed)
ON CONFLICT (person, item) DO UPDATE
SET text = excluded.text, files = excluded.files, links = excluded.links, entries = excluded.entries, judged = excluded.judged, saved_at = excluded.saved_at, missed_at = excluded.missed_at, claimed_at = excluded.claimed_at, version = draft.version + 1
