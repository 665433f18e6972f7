-- What was removed and has work on it is read with the edition: its facts are asked for by item.
CREATE INDEX fact_item ON fact (item);

-- How many times over a batch is a taking back: 0 a change, 1 its undo, 2 its redo, 3 the undo of that …
CREATE FUNCTION undo_depth(of_batch bigint) RETURNS int
LANGUAGE sql STABLE AS $$
  WITH RECURSIVE back (batch, depth) AS (
    SELECT undoes, 1 FROM batch WHERE id = of_batch AND undoes IS NOT NULL
    UNION ALL
    SELECT b.undoes, back.depth + 1 FROM back JOIN batch b ON b.id = back.batch WHERE b.undoes IS NOT NULL
  )
  SELECT coalesce(max(depth), 0) FROM back
$$;
GRANT EXECUTE ON FUNCTION undo_depth(bigint) TO polycline_app;

-- Only wrong tries count from an address: behind one address a whole school signs in.
ALTER TABLE sign_in_try ADD COLUMN wrong boolean NOT NULL DEFAULT true;
GRANT UPDATE ON sign_in_try TO polycline_app;

-- Browsers from which somebody has signed in before: their owner is not kept out by what others try. Only the hash of what the browser keeps stands here.
CREATE TABLE known_browser (
  token_hash bytea PRIMARY KEY,
  person     bigint NOT NULL REFERENCES person,
  last_at    timestamptz NOT NULL
);
CREATE INDEX known_browser_person ON known_browser (person);
GRANT SELECT, INSERT, UPDATE ON known_browser TO polycline_app;

-- Moments before and after all calendars were once taken from outside: they are told of no more, and cannot come again.
UPDATE work_version SET claimed_at = NULL WHERE claimed_at NOT BETWEEN '1900-01-01' AND '3000-01-01';
UPDATE draft SET claimed_at = NULL WHERE claimed_at NOT BETWEEN '1900-01-01' AND '3000-01-01';
ALTER TABLE work_version ADD CONSTRAINT work_version_claimed_at CHECK (claimed_at BETWEEN '1900-01-01' AND '3000-01-01');
ALTER TABLE draft ADD CONSTRAINT draft_claimed_at CHECK (claimed_at BETWEEN '1900-01-01' AND '3000-01-01');

-- Since which date a section follows its course; null: from the beginning. What was due by then is overdue for none of its students.
ALTER TABLE section ADD COLUMN follows_from date;
GRANT UPDATE (follows_from) ON section TO polycline_app;

-- On which day an edition becomes a past one by itself; null: none is set.
ALTER TABLE edition ADD COLUMN ends_on date;
GRANT UPDATE (ends_on) ON edition TO polycline_app;

-- Of one course one edition is current and one may be coming.
CREATE UNIQUE INDEX edition_one_coming ON edition (master) WHERE state = 'draft';

-- Takes back that an edition has ended. Refused once a student has begun in the next one.
CREATE OR REPLACE FUNCTION resume_edition(which bigint) RETURNS void LANGUAGE plpgsql SECURITY DEFINER SET search_path = public AS $$
BEGIN
  IF EXISTS (SELECT 1 FROM edition later JOIN item i ON i.edition = later.id JOIN fact f ON f.item = i.id WHERE later.carried_from = which) THEN
    RAISE EXCEPTION 'students have begun in the next edition' USING ERRCODE = 'PC003';
  END IF;
  UPDATE edition SET state = 'draft', version = version + 1 WHERE carried_from = which AND state = 'current';
  UPDATE edition SET state = 'current', ends_on = NULL, version = version + 1 WHERE id = which AND state = 'resting';
END $$;
REVOKE ALL ON FUNCTION resume_edition(bigint) FROM PUBLIC;
GRANT EXECUTE ON FUNCTION resume_edition(bigint) TO polycline_app;
