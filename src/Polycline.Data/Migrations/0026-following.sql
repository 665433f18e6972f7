-- A section begins to follow another course, or stops, and its students' work goes along: from one item to the one that stands for it.
-- 'back': it was undone, and the work is where it was before.
CREATE TABLE work_move (
  batch      bigint PRIMARY KEY REFERENCES batch ON DELETE CASCADE,
  section    bigint NOT NULL REFERENCES section,
  edition    bigint NOT NULL REFERENCES edition,
  came_from  bigint NOT NULL REFERENCES edition,
  from_items bigint[] NOT NULL,
  to_items   bigint[] NOT NULL,
  back       boolean NOT NULL DEFAULT false,
  -- The course it goes to was made for the section, which keeps what it followed.
  made_own   boolean NOT NULL,
  -- What of the course is of this section only: there while it follows, out of sight while it does not.
  units      bigint[] NOT NULL,
  lessons    bigint[] NOT NULL,
  items      bigint[] NOT NULL,
  CHECK (cardinality(from_items) = cardinality(to_items))
);
CREATE INDEX work_move_section ON work_move (section);
GRANT SELECT, INSERT ON work_move TO polycline_app;
GRANT UPDATE (back) ON work_move TO polycline_app;

-- What a section's students did with some items hangs on others from now on. Nothing is added and nothing is lost.
CREATE FUNCTION move_work(which_section bigint, from_items bigint[], to_items bigint[]) RETURNS void
LANGUAGE plpgsql SECURITY DEFINER SET search_path TO 'public' AS $$
BEGIN
  UPDATE fact f SET item = m.there FROM unnest(from_items, to_items) m (here, there) WHERE f.item = m.here AND f.section = which_section;
  UPDATE work w SET item = m.there FROM unnest(from_items, to_items) m (here, there) WHERE w.item = m.here AND w.section = which_section;
  UPDATE opened o SET item = m.there FROM unnest(from_items, to_items) m (here, there) WHERE o.item = m.here AND o.section = which_section;
  UPDATE draft d SET item = m.there FROM unnest(from_items, to_items) m (here, there)
  WHERE d.item = m.here AND EXISTS (SELECT 1 FROM enrolment n WHERE n.person = d.person AND n.section = which_section)
    AND NOT EXISTS (SELECT 1 FROM draft other WHERE other.person = d.person AND other.item = m.there);
END $$;
REVOKE ALL ON FUNCTION move_work(bigint, bigint[], bigint[]) FROM PUBLIC;
GRANT EXECUTE ON FUNCTION move_work(bigint, bigint[], bigint[]) TO polycline_app;

-- A condition or a date that names things by what they are called in another course.
CREATE FUNCTION renamed(what jsonb, old text[], new text[]) RETURNS jsonb LANGUAGE plpgsql IMMUTABLE AS $$
DECLARE
  written text := what::text;
BEGIN
  FOR n IN 1 .. coalesce(cardinality(old), 0) LOOP
    written := replace(written, old[n], new[n]);
  END LOOP;
  RETURN written::jsonb;
END $$;

CREATE FUNCTION refuse_left_behind() RETURNS boolean LANGUAGE plpgsql AS $$
BEGIN
  RAISE EXCEPTION 'students have worked since' USING ERRCODE = 'PC003';
END $$;
