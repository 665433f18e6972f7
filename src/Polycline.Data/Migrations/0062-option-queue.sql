-- Who waits for an option of a choice that is full, in the order in which they came; whoever came up from it keeps their line for as long as
-- they have the option, so that they can be told how they came by it.
CREATE TABLE option_queue (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  item bigint NOT NULL REFERENCES item ON DELETE CASCADE,
  section bigint NOT NULL REFERENCES section ON DELETE CASCADE,
  person bigint NOT NULL REFERENCES person,
  option text NOT NULL,
  at timestamptz NOT NULL,
  came_up_at timestamptz,
  UNIQUE (item, person, option)
);
CREATE INDEX option_queue_waiting ON option_queue (item, section) WHERE came_up_at IS NULL;
GRANT SELECT, INSERT, DELETE ON option_queue TO polycline_app;
GRANT UPDATE (came_up_at) ON option_queue TO polycline_app;

DO $$
DECLARE
  body text;
BEGIN
  body := replace(pg_get_functiondef('erase_person(bigint, timestamptz)'::regprocedure),
    'DELETE FROM draft WHERE person = which;', 'DELETE FROM draft WHERE person = which; DELETE FROM option_queue WHERE person = which;');
  ASSERT body LIKE '%option_queue%';
  EXECUTE body;
  -- One person has one place in a queue: the earlier one.
  body := replace(pg_get_functiondef('join_people(bigint, bigint, timestamptz)'::regprocedure),
    'UPDATE work w SET person = kept WHERE w.person = other;',
    'DELETE FROM option_queue q USING option_queue p WHERE q.item = p.item AND q.option = p.option AND q.id > p.id
    AND q.person IN (kept, other) AND p.person IN (kept, other);
  UPDATE option_queue q SET person = kept WHERE q.person = other;
  UPDATE work w SET person = kept WHERE w.person = other;');
  ASSERT body LIKE '%option_queue%';
  EXECUTE body;
END $$;
