-- A piece that was read and goes back later, with others: until then nothing of it is to be seen but by those who teach the section.
CREATE TABLE ready_mark (
  work bigint PRIMARY KEY REFERENCES work ON DELETE CASCADE,
  n int NOT NULL CHECK (n >= 1),
  by bigint NOT NULL REFERENCES person,
  at timestamptz NOT NULL,
  -- How it goes back in a few words, and what goes back, as it was sent.
  words text NOT NULL,
  request jsonb NOT NULL
);
GRANT SELECT, INSERT, UPDATE, DELETE ON ready_mark TO polycline_app;

-- What was about to be said to somebody who is erased is erased too.
DO $$
DECLARE
  body text := pg_get_functiondef('erase_person(bigint, timestamptz)'::regprocedure);
BEGIN
  EXECUTE replace(body, 'DELETE FROM draft WHERE person = which;',
    'DELETE FROM draft WHERE person = which; DELETE FROM ready_mark r USING work w WHERE w.id = r.work AND w.person = which;');
END $$;
