-- Scores given in the table: some for what was handed in, some for what was done on paper, all of one go taken back together.
ALTER TABLE feedback ALTER COLUMN n DROP NOT NULL;
ALTER TABLE feedback
  ADD COLUMN given uuid,
  ADD COLUMN taken_back_at timestamptz,
  ADD COLUMN taken_back_by bigint REFERENCES person,
  ADD CHECK ((taken_back_at IS NULL) = (taken_back_by IS NULL)),
  -- What nothing was handed in for is marked; words alone go with a piece.
  ADD CHECK (n IS NOT NULL OR mark IS NOT NULL);
CREATE INDEX feedback_given ON feedback (given) WHERE given IS NOT NULL;
ALTER TABLE fact ADD COLUMN given uuid, ADD COLUMN voided_for uuid;
CREATE INDEX fact_given ON fact (given) WHERE given IS NOT NULL;
CREATE INDEX fact_voided_for ON fact (voided_for) WHERE voided_for IS NOT NULL;

-- A score given by mistake, with a later one in its place: from now on it counts at no moment, so what it alone had opened closes.
CREATE FUNCTION void_earlier_scores(which bigint, what bigint, voider bigint, moment timestamptz, reason uuid) RETURNS void
LANGUAGE sql SECURITY DEFINER SET search_path TO 'public' AS $$
  UPDATE fact f SET voided_at = moment, voided_by = voider, voided_for = reason
  WHERE f.person = which AND f.item = what AND f.event = 'scored' AND f.voided_at IS NULL
    AND f.id < (SELECT max(l.id) FROM fact l WHERE l.person = which AND l.item = what AND l.event = 'scored' AND l.voided_at IS NULL);
$$;

-- Takes back what was given in one go in a section: it was never given, and what it voided counts again.
CREATE FUNCTION take_back_scores(reason uuid, where_given bigint, taker bigint, moment timestamptz) RETURNS int
LANGUAGE sql SECURITY DEFINER SET search_path TO 'public' AS $$
  WITH back AS (
    UPDATE feedback f SET taken_back_at = moment, taken_back_by = taker
    WHERE f.given = reason AND f.taken_back_at IS NULL
      AND EXISTS (SELECT 1 FROM work w JOIN fact g ON g.person = w.person AND g.item = w.item AND g.given = reason AND g.section = where_given
                  WHERE w.id = f.work)
    RETURNING f.id
  ), voided AS (
    UPDATE fact f SET voided_at = moment, voided_by = taker
    WHERE f.given = reason AND f.section = where_given AND f.voided_at IS NULL
  ), again AS (
    UPDATE fact f SET voided_at = NULL, voided_by = NULL, voided_for = NULL
    WHERE f.voided_for = reason AND EXISTS (SELECT 1 FROM back)
  )
  SELECT count(*)::int FROM back;
$$;
REVOKE ALL ON FUNCTION void_earlier_scores(bigint, bigint, bigint, timestamptz, uuid), take_back_scores(uuid, bigint, bigint, timestamptz) FROM PUBLIC;
GRANT EXECUTE ON FUNCTION void_earlier_scores(bigint, bigint, bigint, timestamptz, uuid), take_back_scores(uuid, bigint, bigint, timestamptz) TO polycline_app;

-- Two accounts of one person: marks for what was done on paper go along, though they are of no version.
DO $$
DECLARE
  body text;
  name regprocedure;
BEGIN
  FOREACH name IN ARRAY ARRAY['join_people(bigint, bigint, timestamptz)', 'separate_people(bigint, timestamptz)']::regprocedure[] LOOP
    body := pg_get_functiondef(name);
    body := replace(body, 'again, mark, returned_at)', 'again, mark, returned_at, given, taken_back_at, taken_back_by)');
    body := replace(body, 'f.mark, f.returned_at', 'f.mark, f.returned_at, f.given, f.taken_back_at, f.taken_back_by');
    body := replace(body, 'f JOIN renumbered r ON', 'f LEFT JOIN renumbered r ON');
    body := replace(body, '(SELECT jsonb_agg(to_jsonb(v)) FROM work_version v', '(SELECT coalesce(jsonb_agg(to_jsonb(v)), ''[]'') FROM work_version v');
    EXECUTE body;
  END LOOP;
END $$;
