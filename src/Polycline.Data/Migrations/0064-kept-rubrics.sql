-- Rubrics that a teacher keeps on their shelf, whatever becomes of the items that had them.
CREATE TABLE kept_rubric (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  person bigint NOT NULL REFERENCES person,
  rubric bytea NOT NULL REFERENCES body,
  kept_at timestamptz NOT NULL,
  UNIQUE (person, rubric)
);
GRANT SELECT, INSERT, DELETE ON kept_rubric TO polycline_app;

DO $$
DECLARE
  body text;
BEGIN
  body := replace(pg_get_functiondef('erase_person(bigint, timestamptz)'::regprocedure),
    'DELETE FROM draft WHERE person = which;', 'DELETE FROM draft WHERE person = which; DELETE FROM kept_rubric WHERE person = which;');
  ASSERT body LIKE '%kept_rubric%';
  EXECUTE body;
  -- Two accounts that are one have one shelf.
  body := replace(pg_get_functiondef('join_people(bigint, bigint, timestamptz)'::regprocedure),
    'UPDATE work w SET person = kept WHERE w.person = other;',
    'INSERT INTO kept_rubric (person, rubric, kept_at)
    SELECT kept, k.rubric, k.kept_at FROM kept_rubric k WHERE k.person = other ON CONFLICT DO NOTHING;
  UPDATE work w SET person = kept WHERE w.person = other;');
  ASSERT body LIKE '%kept_rubric%';
  EXECUTE body;
END $$;
