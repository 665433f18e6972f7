-- How an item is marked; null: in words only. And what was given, with how it was marked then.
ALTER TABLE item ADD COLUMN marked jsonb;
ALTER TABLE feedback ADD COLUMN mark jsonb;

-- Where two accounts of one person are joined, and told apart again, marks go with the feedback they were given with.
DO $$
DECLARE
  name regprocedure;
BEGIN
  FOREACH name IN ARRAY ARRAY['join_people(bigint, bigint, timestamptz)', 'separate_people(bigint, timestamptz)']::regprocedure[] LOOP
    EXECUTE replace(
      replace(pg_get_functiondef(name), 'text, again, returned_at)', 'text, again, mark, returned_at)'),
      'f.again, f.returned_at', 'f.again, f.mark, f.returned_at');
  END LOOP;
END $$;
