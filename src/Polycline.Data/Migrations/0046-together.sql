-- Some hand in together: each has the piece whole, as their own, and each version says whose it is with.
ALTER TABLE work_version
  -- The same for all the pieces that were handed in at once; null: alone.
  ADD COLUMN together uuid,
  -- Who handed it in for the others; null: whose it is.
  ADD COLUMN by bigint REFERENCES person;
CREATE INDEX work_version_together ON work_version (together) WHERE together IS NOT NULL;
CREATE INDEX work_version_by ON work_version (by) WHERE by IS NOT NULL;

-- Each of them has the files as their own.
GRANT USAGE ON SEQUENCE work_file_id_seq TO polycline_app;

-- What two accounts of one person handed in and wrote is put together whole: links and entries of a log too.
CREATE OR REPLACE FUNCTION join_people(kept bigint, other bigint, at timestamp with time zone) RETURNS jsonb
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
             v.files, v.links, v.entries, v.together, v.by
      FROM jsonb_populate_recordset(NULL::work_version, merged -> -1 -> 'versions') v;
    INSERT INTO work_version (work, n, text, handed_in_at, claimed_at, request, taken_back_at, files, links, entries, together, by)
    SELECT pair.mine, r.now, r.text, r.handed_in_at, r.claimed_at, r.request, r.taken_back_at, r.files, r.links, r.entries, r.together, r.by FROM renumbered r;
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
  -- Of two drafts, both texts and all files, links and entries.
  UPDATE draft d SET text = d.text || E'\n\n' || o.text, files = d.files || o.files, links = d.links || o.links,
    entries = coalesce(d.entries || o.entries, d.entries, o.entries), saved_at = greatest(d.saved_at, o.saved_at), version = d.version + 1
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
