-- Two accounts that are one person's. Everything of the one goes to the other, which is kept; the first stays behind, out of use.
ALTER TABLE person ADD COLUMN joined_into bigint REFERENCES person;

-- What was where before, so that two who are not one after all can be separated again.
CREATE TABLE person_join (
  id           bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  kept         bigint NOT NULL REFERENCES person,
  other        bigint NOT NULL REFERENCES person,
  at           timestamptz NOT NULL,
  before       jsonb NOT NULL,
  separated_at timestamptz,
  CHECK (kept <> other)
);
CREATE UNIQUE INDEX person_join_once ON person_join (other) WHERE separated_at IS NULL;
GRANT SELECT ON person_join TO polycline_app;

-- The editions that know somebody: their plans are read anew.
CREATE FUNCTION editions_of(people bigint[]) RETURNS bigint[] LANGUAGE sql STABLE AS $$
  SELECT coalesce(array_agg(DISTINCT edition), '{}') FROM (
    SELECT c.edition FROM enrolment n JOIN section c ON c.id = n.section WHERE n.person = ANY(people)
    UNION ALL SELECT c.edition FROM section_teacher t JOIN section c ON c.id = t.section WHERE t.person = ANY(people)
    UNION ALL SELECT i.edition FROM fact f JOIN item i ON i.id = f.item WHERE f.person = ANY(people)
    UNION ALL SELECT g.edition FROM in_group m JOIN student_group g ON g.id = m.student_group WHERE m.person = ANY(people)
    UNION ALL SELECT edition FROM home WHERE person = ANY(people)
    UNION ALL SELECT edition FROM exception WHERE person = ANY(people)
    UNION ALL SELECT edition FROM arrangement WHERE person = ANY(people)
  ) known WHERE edition IS NOT NULL
$$;

-- Rows of the log's tables that go along, and all that the log says of such rows, also of those that are gone by now: what is undone later
-- is then undone for the one person there is. Where the other account has such a row, or the log tells of one, both stay as they are.
CREATE FUNCTION renamed_rows(which text, keyed text[], here bigint, there bigint, among jsonb) RETURNS jsonb
LANGUAGE plpgsql SECURITY DEFINER SET search_path TO 'public' AS $$
DECLARE
  keys jsonb;
BEGIN
  EXECUTE format(
    'SELECT coalesce(jsonb_agg(k.key), ''[]'') FROM (
       SELECT (SELECT jsonb_object_agg(f, to_jsonb(t) -> f) FROM unnest($1) f) AS key FROM %1$I t WHERE t.person = $2
       UNION SELECT c.key FROM change c WHERE c.tbl = %1$L AND c.key @> jsonb_build_object(''person'', $2)) k
     WHERE ($4 IS NULL OR $4 @> jsonb_build_array(k.key - ''person''))
       AND NOT EXISTS (SELECT 1 FROM %1$I o WHERE to_jsonb(o) @> (k.key || jsonb_build_object(''person'', $3)))
       AND NOT EXISTS (SELECT 1 FROM change c WHERE c.tbl = %1$L AND c.key = k.key || jsonb_build_object(''person'', $3))', which)
  INTO keys USING keyed, here, there, among;
  EXECUTE format('UPDATE %I t SET person = $2 FROM jsonb_array_elements($1) k WHERE to_jsonb(t) @> k.value', which) USING keys, there;
  UPDATE change c SET key = c.key || jsonb_build_object('person', there)
  FROM jsonb_array_elements(keys) k WHERE c.tbl = which AND c.key = k.value;
  RETURN (SELECT coalesce(jsonb_agg(k.value - 'person'), '[]') FROM jsonb_array_elements(keys) k);
END $$;
REVOKE ALL ON FUNCTION renamed_rows(text, text[], bigint, bigint, jsonb) FROM PUBLIC;

-- Changes of places name whose they are beside their keys.
CREATE FUNCTION renamed_places(here bigint, there bigint, among jsonb) RETURNS jsonb
LANGUAGE sql SECURITY DEFINER SET search_path TO 'public' AS $$
  WITH renamed AS (
    UPDATE change c SET before = CASE WHEN c.before ->> 'person' = here::text THEN c.before || jsonb_build_object('person', there) ELSE c.before END,
                        after = CASE WHEN c.after ->> 'person' = here::text THEN c.after || jsonb_build_object('person', there) ELSE c.after END
    WHERE c.tbl = 'enrolment' AND here::text IN (c.before ->> 'person', c.after ->> 'person')
      AND (among IS NULL OR among @> jsonb_build_array(jsonb_build_array(c.batch, c.n)))
    RETURNING c.batch, c.n)
  SELECT coalesce(jsonb_agg(jsonb_build_array(batch, n)), '[]') FROM renamed
$$;
REVOKE ALL ON FUNCTION renamed_places(bigint, bigint, jsonb) FROM PUBLIC;

-- Takes everything of 'other' to 'kept'. Returns what came together, in numbers.
CREATE FUNCTION join_people(kept bigint, other bigint, at timestamptz) RETURNS jsonb
LANGUAGE plpgsql SECURITY DEFINER SET search_path TO 'public' AS $$
#variable_conflict use_variable
DECLARE
  was jsonb;
  pair record;
  place record;
  touched bigint[] := editions_of(ARRAY[kept, other]);
  merged jsonb := '[]';
  moved jsonb := '{}';
  counted jsonb := '{}';
  n int;
BEGIN
  PERFORM 1 FROM edition WHERE id = ANY(touched) ORDER BY id FOR UPDATE;
  PERFORM 1 FROM person WHERE id IN (kept, other) ORDER BY id FOR UPDATE;
  was := jsonb_build_object(
    'kept', (SELECT jsonb_build_object('office', office, 'teacher', teacher) FROM person WHERE id = kept),
    'removed_at', (SELECT removed_at FROM person WHERE id = other),
    'places', (SELECT coalesce(jsonb_agg(to_jsonb(e)), '[]') FROM enrolment e WHERE e.person IN (kept, other)),
    'facts', (SELECT coalesce(jsonb_agg(f.id), '[]') FROM fact f WHERE f.person = other),
    'works', (SELECT coalesce(jsonb_agg(w.id), '[]') FROM work w WHERE w.person = other),
    'drafts', (SELECT coalesce(jsonb_agg(to_jsonb(d)), '[]') FROM draft d WHERE d.person IN (kept, other)),
    'teaches', (SELECT coalesce(jsonb_agg(to_jsonb(t)), '[]') FROM section_teacher t WHERE t.person IN (kept, other)),
    'teams', (SELECT coalesce(jsonb_agg(to_jsonb(m)), '[]') FROM master_member m WHERE m.person IN (kept, other)),
    'roster', (SELECT coalesce(jsonb_agg(to_jsonb(r)), '[]') FROM roster_key r WHERE r.kind = 'person' AND r.about = other),
    'provider', (SELECT coalesce(jsonb_agg(to_jsonb(p)), '[]') FROM provider_identity p WHERE p.person = other),
    'codes', (SELECT coalesce(jsonb_agg(u.id), '[]') FROM code_use u WHERE u.person = other));

  -- Places: two in one section that meet become one.
  FOR place IN SELECT e.* FROM enrolment e WHERE e.person = other ORDER BY e.section, e.period LOOP
    IF EXISTS (SELECT 1 FROM enrolment k WHERE k.person = kept AND k.section = place.section AND k.period && place.period) THEN
      WITH met AS (
        DELETE FROM enrolment k WHERE k.person = kept AND k.section = place.section AND k.period && place.period RETURNING k.*
      ), gone AS (DELETE FROM enrolment e WHERE e.id = place.id)
      INSERT INTO enrolment (section, person, period)
      SELECT place.section, kept, range_merge(range_agg(met.period)::datemultirange + datemultirange(place.period)) FROM met;
    ELSE
      UPDATE enrolment e SET person = kept, version = e.version + 1 WHERE e.id = place.id;
    END IF;
  END LOOP;

  -- What both handed in for one item becomes one run of versions, in the order in which it was handed in.
  FOR pair IN SELECT k.id AS mine, o.id AS theirs FROM work k JOIN work o ON o.item = k.item AND o.person = other WHERE k.person = kept LOOP
    merged := merged || jsonb_build_object(
      'mine', pair.mine, 'theirs', (SELECT to_jsonb(w) FROM work w WHERE w.id = pair.theirs),
      'versions', (SELECT jsonb_agg(to_jsonb(v)) FROM work_version v WHERE v.work IN (pair.mine, pair.theirs)),
      'feedback', (SELECT coalesce(jsonb_agg(to_jsonb(f)), '[]') FROM feedback f WHERE f.work IN (pair.mine, pair.theirs)));
    DELETE FROM feedback f WHERE f.work IN (pair.mine, pair.theirs);
    DELETE FROM work_version v WHERE v.work IN (pair.mine, pair.theirs);
    DELETE FROM work w WHERE w.id = pair.theirs;
    CREATE TEMP TABLE renumbered ON COMMIT DROP AS
      SELECT v.work, v.n, row_number() OVER (ORDER BY v.handed_in_at, v.work, v.n)::int AS now, v.text, v.handed_in_at, v.claimed_at, v.request, v.taken_back_at,
             v.files
      FROM jsonb_populate_recordset(NULL::work_version, merged -> -1 -> 'versions') v;
    INSERT INTO work_version (work, n, text, handed_in_at, claimed_at, request, taken_back_at, files)
    SELECT pair.mine, r.now, r.text, r.handed_in_at, r.claimed_at, r.request, r.taken_back_at, r.files FROM renumbered r;
    INSERT INTO feedback (id, work, n, by, text, again, returned_at) OVERRIDING SYSTEM VALUE
    SELECT f.id, pair.mine, r.now, f.by, f.text, f.again, f.returned_at
    FROM jsonb_populate_recordset(NULL::feedback, merged -> -1 -> 'feedback') f JOIN renumbered r ON r.work = f.work AND r.n = f.n;
    DROP TABLE renumbered;
  END LOOP;
  UPDATE work w SET person = kept WHERE w.person = other;
  GET DIAGNOSTICS n = ROW_COUNT;
  counted := counted || jsonb_build_object('works', n, 'merged', jsonb_array_length(merged));
  UPDATE fact f SET person = kept WHERE f.person = other
    AND NOT EXISTS (SELECT 1 FROM fact mine WHERE mine.person = kept AND mine.request = f.request);
  GET DIAGNOSTICS n = ROW_COUNT;
  counted := counted || jsonb_build_object('facts', n);

  -- Of two drafts, both texts and all files.
  UPDATE draft d SET text = d.text || E'\n\n' || o.text, files = d.files || o.files, saved_at = greatest(d.saved_at, o.saved_at), version = d.version + 1
  FROM draft o WHERE d.person = kept AND o.person = other AND o.item = d.item;
  DELETE FROM draft o WHERE o.person = other AND EXISTS (SELECT 1 FROM draft d WHERE d.person = kept AND d.item = o.item);
  UPDATE draft d SET person = kept WHERE d.person = other;

  counted := counted || jsonb_build_object(
    'groups', (SELECT count(*) FROM in_group m WHERE m.person = other),
    'differences', (SELECT count(*) FROM exception x WHERE x.person = other) + (SELECT count(*) FROM arrangement a WHERE a.person = other));
  moved := jsonb_build_object(
    'enrolment', renamed_places(other, kept, NULL),
    'in_group', renamed_rows('in_group', ARRAY['student_group', 'person'], other, kept, NULL),
    'home', renamed_rows('home', ARRAY['edition', 'person'], other, kept, NULL),
    'exception', renamed_rows('exception', ARRAY['edition', 'person', 'item', 'field', 'move'], other, kept, NULL),
    'arrangement', renamed_rows('arrangement', ARRAY['edition', 'person'], other, kept, NULL));
  n := (SELECT count(*) FROM exception x WHERE x.person = other) + (SELECT count(*) FROM arrangement a WHERE a.person = other);
  counted := counted || jsonb_build_object(
    'groups', (counted ->> 'groups')::int - (SELECT count(*) FROM in_group m WHERE m.person = other),
    'differences', (counted ->> 'differences')::int - n, 'left', n);

  INSERT INTO section_teacher (section, person) SELECT t.section, kept FROM section_teacher t WHERE t.person = other ON CONFLICT DO NOTHING;
  DELETE FROM section_teacher t WHERE t.person = other;
  INSERT INTO master_member AS m (master, person, role) SELECT o.master, kept, o.role FROM master_member o WHERE o.person = other
  ON CONFLICT (master, person) DO UPDATE SET role =
    (ARRAY['lead', 'co', 'sections', 'reader'])[least(array_position(ARRAY['lead', 'co', 'sections', 'reader'], m.role),
                                                      array_position(ARRAY['lead', 'co', 'sections', 'reader'], excluded.role))];
  DELETE FROM master_member m WHERE m.person = other;
  UPDATE roster_key r SET about = kept WHERE r.kind = 'person' AND r.about = other;
  UPDATE provider_identity p SET person = kept WHERE p.person = other
    AND NOT EXISTS (SELECT 1 FROM provider_identity mine WHERE mine.person = kept AND mine.issuer = p.issuer);
  UPDATE code_use u SET person = kept WHERE u.person = other
    AND NOT EXISTS (SELECT 1 FROM code_use mine WHERE mine.person = kept AND mine.code = u.code);
  UPDATE person p SET office = p.office OR o.office, teacher = p.teacher OR o.teacher FROM person o WHERE p.id = kept AND o.id = other;
  UPDATE person p SET removed_at = coalesce(p.removed_at, at), joined_into = kept WHERE p.id = other;
  UPDATE edition e SET version = e.version + 1 WHERE e.id = ANY(touched);
  INSERT INTO person_join (kept, other, at, before)
  VALUES (kept, other, at, was || jsonb_build_object(
    'merged', merged, 'moved', moved, 'placed', (SELECT coalesce(jsonb_agg(to_jsonb(e)), '[]') FROM enrolment e WHERE e.person = kept),
    'joined_drafts', (SELECT coalesce(jsonb_agg(to_jsonb(d)), '[]') FROM draft d WHERE d.person = kept)));
  RETURN counted;
END $$;
REVOKE ALL ON FUNCTION join_people(bigint, bigint, timestamptz) FROM PUBLIC;
GRANT EXECUTE ON FUNCTION join_people(bigint, bigint, timestamptz) TO polycline_app;

-- Puts everything back where it was, as long as nothing that came together has been touched since.
CREATE FUNCTION separate_people(which bigint, at timestamptz) RETURNS void
LANGUAGE plpgsql SECURITY DEFINER SET search_path TO 'public' AS $$
#variable_conflict use_variable
DECLARE
  j person_join;
  touched bigint[];
  pair jsonb;
BEGIN
  SELECT * INTO j FROM person_join p WHERE p.id = which AND p.separated_at IS NULL FOR UPDATE;
  IF j.id IS NULL THEN
    RAISE EXCEPTION 'join % is not in force', which USING ERRCODE = 'PC002';
  END IF;
  touched := editions_of(ARRAY[j.kept]);
  PERFORM 1 FROM edition WHERE id = ANY(touched) ORDER BY id FOR UPDATE;
  IF (SELECT coalesce(jsonb_agg(to_jsonb(e) ORDER BY e.id), '[]') FROM enrolment e WHERE e.person = j.kept)
       <> (SELECT coalesce(jsonb_agg(p.value ORDER BY (p.value ->> 'id')::bigint), '[]') FROM jsonb_array_elements(j.before -> 'placed') p)
     OR EXISTS (
       SELECT 1 FROM jsonb_array_elements(j.before -> 'merged') m
       WHERE (SELECT count(*) FROM work_version v WHERE v.work = (m.value ->> 'mine')::bigint) <> jsonb_array_length(m.value -> 'versions')
          OR (SELECT count(*) FROM feedback f WHERE f.work = (m.value ->> 'mine')::bigint) <> jsonb_array_length(m.value -> 'feedback')) THEN
    RAISE EXCEPTION 'something has changed since %', which USING ERRCODE = 'PC003';
  END IF;

  DELETE FROM enrolment e WHERE e.person = j.kept;
  INSERT INTO enrolment (id, section, person, period, version)
  SELECT p.id, p.section, p.person, p.period, p.version + 2 FROM jsonb_populate_recordset(NULL::enrolment, j.before -> 'places') p;

  FOR pair IN SELECT * FROM jsonb_array_elements(j.before -> 'merged') LOOP
    DELETE FROM feedback f WHERE f.work = (pair ->> 'mine')::bigint;
    DELETE FROM work_version v WHERE v.work = (pair ->> 'mine')::bigint;
    INSERT INTO work (id, person, item, section) OVERRIDING SYSTEM VALUE
    SELECT w.id, w.person, w.item, w.section FROM jsonb_populate_record(NULL::work, pair -> 'theirs') w;
    INSERT INTO work_version SELECT v.* FROM jsonb_populate_recordset(NULL::work_version, pair -> 'versions') v;
    INSERT INTO feedback (id, work, n, by, text, again, returned_at) OVERRIDING SYSTEM VALUE
    SELECT f.id, f.work, f.n, f.by, f.text, f.again, f.returned_at FROM jsonb_populate_recordset(NULL::feedback, pair -> 'feedback') f;
  END LOOP;
  UPDATE work w SET person = j.other WHERE w.person = j.kept AND j.before -> 'works' @> to_jsonb(w.id);
  UPDATE fact f SET person = j.other WHERE f.person = j.kept AND j.before -> 'facts' @> to_jsonb(f.id);
  -- A draft that was written on since stays, and the other's is there again as it was.
  DELETE FROM draft d WHERE d.person = j.kept AND j.before -> 'joined_drafts' @> jsonb_build_array(to_jsonb(d));
  INSERT INTO draft SELECT d.* FROM jsonb_populate_recordset(NULL::draft, j.before -> 'drafts') d ON CONFLICT DO NOTHING;

  PERFORM renamed_places(j.kept, j.other, j.before -> 'moved' -> 'enrolment');
  PERFORM renamed_rows('in_group', ARRAY['student_group', 'person'], j.kept, j.other, j.before -> 'moved' -> 'in_group');
  PERFORM renamed_rows('home', ARRAY['edition', 'person'], j.kept, j.other, j.before -> 'moved' -> 'home');
  PERFORM renamed_rows('exception', ARRAY['edition', 'person', 'item', 'field', 'move'], j.kept, j.other, j.before -> 'moved' -> 'exception');
  PERFORM renamed_rows('arrangement', ARRAY['edition', 'person'], j.kept, j.other, j.before -> 'moved' -> 'arrangement');

  DELETE FROM section_teacher t WHERE t.person = j.kept AND NOT j.before -> 'teaches' @> jsonb_build_array(to_jsonb(t))
    AND j.before -> 'teaches' @> jsonb_build_array(jsonb_build_object('section', t.section, 'person', j.other));
  INSERT INTO section_teacher SELECT t.* FROM jsonb_populate_recordset(NULL::section_teacher, j.before -> 'teaches') t
  WHERE t.person = j.other ON CONFLICT DO NOTHING;
  DELETE FROM master_member m WHERE m.person = j.kept
    AND j.before -> 'teams' @> jsonb_build_array(jsonb_build_object('master', m.master, 'person', j.other));
  INSERT INTO master_member SELECT m.* FROM jsonb_populate_recordset(NULL::master_member, j.before -> 'teams') m ON CONFLICT DO NOTHING;
  UPDATE roster_key r SET about = j.other FROM jsonb_populate_recordset(NULL::roster_key, j.before -> 'roster') o
  WHERE r.source = o.source AND r.kind = o.kind AND r.key = o.key AND r.about = j.kept;
  UPDATE provider_identity p SET person = j.other FROM jsonb_populate_recordset(NULL::provider_identity, j.before -> 'provider') o
  WHERE p.issuer = o.issuer AND p.subject = o.subject AND p.person = j.kept;
  UPDATE code_use u SET person = j.other WHERE u.person = j.kept AND j.before -> 'codes' @> to_jsonb(u.id);
  UPDATE person p SET office = (j.before -> 'kept' ->> 'office')::boolean, teacher = (j.before -> 'kept' ->> 'teacher')::boolean WHERE p.id = j.kept;
  UPDATE person p SET removed_at = (j.before ->> 'removed_at')::timestamptz, joined_into = NULL WHERE p.id = j.other;
  UPDATE person_join p SET separated_at = at, before = '{}' WHERE p.id = j.id;
  touched := touched || editions_of(ARRAY[j.other]);
  UPDATE edition e SET version = e.version + 1 WHERE e.id = ANY(touched);
END $$;
REVOKE ALL ON FUNCTION separate_people(bigint, timestamptz) FROM PUBLIC;
GRANT EXECUTE ON FUNCTION separate_people(bigint, timestamptz) TO polycline_app;

-- Of somebody who is erased, nothing is kept of what was where before they were joined.
CREATE FUNCTION forget_joins(which bigint, at timestamptz) RETURNS void LANGUAGE sql SECURITY DEFINER SET search_path TO 'public' AS $$
  UPDATE person_join p SET before = '{}', separated_at = coalesce(p.separated_at, forget_joins.at) WHERE p.kept = which OR p.other = which
$$;
REVOKE ALL ON FUNCTION forget_joins(bigint, timestamptz) FROM PUBLIC;
GRANT EXECUTE ON FUNCTION forget_joins(bigint, timestamptz) TO polycline_app;
