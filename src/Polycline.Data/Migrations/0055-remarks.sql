-- Remarks in the margin of what was handed in go back with it: a list of places and what is said there.
ALTER TABLE feedback ADD COLUMN remarks jsonb CHECK (jsonb_typeof(remarks) = 'array' AND jsonb_array_length(remarks) BETWEEN 1 AND 100);
-- What somebody has remarked before is offered to them again.
CREATE INDEX feedback_by ON feedback (by, id DESC);

-- Two accounts of one person: remarks go along. What is erased takes them with it.
DO $$
DECLARE
  body text;
  name regprocedure;
BEGIN
  FOREACH name IN ARRAY ARRAY['join_people(bigint, bigint, timestamptz)', 'separate_people(bigint, timestamptz)']::regprocedure[] LOOP
    body := pg_get_functiondef(name);
    body := replace(body, 'again, mark, returned_at,', 'again, mark, remarks, returned_at,');
    body := replace(body, 'f.mark, f.returned_at,', 'f.mark, f.remarks, f.returned_at,');
    EXECUTE body;
  END LOOP;
  body := pg_get_functiondef('erase_person(bigint, timestamptz)'::regprocedure);
  EXECUTE replace(body, 'UPDATE feedback f SET text = '''' FROM', 'UPDATE feedback f SET text = '''', remarks = NULL FROM');
END $$;
