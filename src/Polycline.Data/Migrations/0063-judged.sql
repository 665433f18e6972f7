-- What students say of their own piece by its rubric, before they hand it in: part of what is written, as its text and files are.
ALTER TABLE draft ADD COLUMN judged jsonb;
ALTER TABLE work_version ADD COLUMN judged jsonb;

DO $$
DECLARE
  body text;
BEGIN
  body := replace(pg_get_functiondef('erase_person(bigint, timestamptz)'::regprocedure),
    'UPDATE work_version v SET text = '''', links = NULL,', 'UPDATE work_version v SET text = '''', judged = NULL, links = NULL,');
  ASSERT body LIKE '%judged = NULL%';
  EXECUTE body;
  body := pg_get_functiondef('join_people(bigint, bigint, timestamptz)'::regprocedure);
  body := replace(body, 'v.files, v.links, v.entries, v.together, v.by', 'v.files, v.links, v.entries, v.judged, v.together, v.by');
  body := replace(body, 'files, links, entries, together, by)', 'files, links, entries, judged, together, by)');
  body := replace(body, 'r.files, r.links, r.entries, r.together, r.by', 'r.files, r.links, r.entries, r.judged, r.together, r.by');
  ASSERT body LIKE '%v.judged%' AND body LIKE '%entries, judged, together, by)%' AND body LIKE '%r.judged%';
  EXECUTE body;
END $$;
