CREATE TABLE public.term (
    id bigint NOT NULL,
    name text NOT NULL,
    zone text NOT NULL,
    first date NOT NULL,
    last date NOT NULL,
    settings jsonb NOT NULL,
    version bigint DEFAULT 1 NOT NULL,
    own_version bigint DEFAULT 1 NOT NULL,
    CONSTRAINT term_check CHECK ((first <= last))
);
CREATE FUNCTION public.calendar_of(t public.term) RETURNS jsonb
    LANGUAGE sql STABLE
    AS $$
  SELECT t.settings || jsonb_build_object(
    'closures', coalesce(jsonb_agg(jsonb_build_object('from', first, 'to', last, 'name', name) ORDER BY first, last, id) FILTER (WHERE kind = 'closure'), '[]'),
    'extraDays', coalesce(jsonb_agg(jsonb_build_object('date', first, 'name', name) ORDER BY first) FILTER (WHERE kind = 'extra'), '[]'),
    'specialDays', coalesce(jsonb_agg(jsonb_strip_nulls(jsonb_build_object('date', first, 'runs', runs, 'periods', periods, 'name', nullif(name, ''))) ORDER BY first) FILTER (WHERE kind = 'special'), '[]'))
  FROM calendar_day
  WHERE term = t.id
$$;
CREATE FUNCTION public.editions_of(people bigint[]) RETURNS bigint[]
    LANGUAGE sql STABLE
    AS $$
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
CREATE FUNCTION public.erase_files(which bigint) RETURNS void
    LANGUAGE plpgsql SECURITY DEFINER
    SET search_path TO 'public'
    AS $$
DECLARE
  listed bigint[];
  hashes bytea[];
BEGIN
  LOCK TABLE upload IN EXCLUSIVE MODE;
  SELECT coalesce(array_agg(DISTINCT f), '{}') INTO listed FROM (
    SELECT unnest(d.files) FROM draft d WHERE d.person = which
    UNION SELECT unnest(v.files) FROM work_version v JOIN work w ON w.id = v.work WHERE w.person = which
    UNION SELECT r.file FROM quiz_answer r JOIN quiz_attempt a ON a.id = r.attempt WHERE a.person = which AND r.file IS NOT NULL) theirs (f);
  SELECT coalesce(array_agg(DISTINCT h), '{}') INTO hashes FROM (
    SELECT w.file FROM work_file w WHERE w.id = ANY(listed)
    UNION SELECT u.file FROM upload u WHERE u.person = which AND u.file IS NOT NULL) theirs (h);
  UPDATE work_version v SET files = NULL, links = NULL, entries = NULL FROM work w WHERE w.id = v.work AND w.person = which;
  UPDATE draft d SET files = NULL, links = NULL, entries = NULL WHERE d.person = which;
  DELETE FROM work_file w WHERE w.id = ANY(listed);
  DELETE FROM upload u WHERE u.person = which;
  DELETE FROM stored_file s WHERE s.hash = ANY(hashes) AND NOT file_is_used(s.hash);
  DELETE FROM file_chunk c
  WHERE NOT EXISTS (SELECT 1 FROM file_part p WHERE p.chunk = c.hash) AND NOT EXISTS (SELECT 1 FROM upload_part p WHERE p.chunk = c.hash);
END $$;
CREATE FUNCTION public.erase_person(which bigint, at timestamp with time zone) RETURNS void
    LANGUAGE plpgsql SECURITY DEFINER
    SET search_path TO 'public'
    AS $$
DECLARE
  mail_address citext;
BEGIN
  SELECT email INTO mail_address FROM person WHERE id = which FOR UPDATE;
  UPDATE edition SET version = version + 1 WHERE id IN (
    SELECT c.edition FROM section c JOIN section_teacher st ON st.section = c.id WHERE st.person = which
    UNION SELECT c.edition FROM section c JOIN enrolment n ON n.section = c.id WHERE n.person = which);
  DELETE FROM session WHERE person = which;
  DELETE FROM one_time_link WHERE person = which;
  DELETE FROM private_link WHERE person = which;
  DELETE FROM known_browser WHERE person = which;
  DELETE FROM known_address WHERE person = which;
  DELETE FROM sign_in_try WHERE account = mail_address;
  DELETE FROM request WHERE person = which;
  DELETE FROM mail WHERE person = which;
  DELETE FROM code_use WHERE person = which;
  DELETE FROM looked WHERE person = which;
  DELETE FROM draft WHERE person = which; DELETE FROM kept_rubric WHERE person = which; DELETE FROM option_queue WHERE person = which; DELETE FROM ready_mark r USING work w WHERE w.id = r.work AND w.person = which;
  DELETE FROM upload WHERE person = which;
  UPDATE cannot_open SET note = '' WHERE person = which;
  DELETE FROM roster_key WHERE kind = 'person' AND about = which;
  DELETE FROM section_teacher WHERE person = which;
  DELETE FROM master_member WHERE person = which;
  UPDATE work_version v SET text = '', judged = NULL, links = NULL, entries = NULL, files = NULL FROM work w WHERE w.id = v.work AND w.person = which;
  UPDATE feedback f SET text = '', remarks = NULL FROM work w WHERE w.id = f.work AND w.person = which;
  UPDATE arrangement SET reason = '' WHERE person = which;
  UPDATE change SET
    before = CASE WHEN before ? 'reason' THEN before || '{"reason": ""}' ELSE before END,
    after = CASE WHEN after ? 'reason' THEN after || '{"reason": ""}' ELSE after END
  WHERE tbl = 'arrangement' AND (key ->> 'person')::bigint = which;
  UPDATE audit SET about = '{}' WHERE who = which AND about ? 'address';
  UPDATE roster_import SET written = jsonb_set(written, '{Renamed}',
    (SELECT coalesce(jsonb_agg(one), '[]') FROM jsonb_array_elements(written -> 'Renamed') one WHERE (one ->> 'Person')::bigint <> which))
  WHERE written -> 'Renamed' @> jsonb_build_array(jsonb_build_object('Person', which));
  UPDATE person SET name = 'Somebody erased', email = 'erased-' || which || '@erased.invalid', password_hash = '', office = false,
    teacher = false, removed_at = coalesce(removed_at, erase_person.at)
  WHERE id = which;
END $$;
CREATE FUNCTION public.erase_quizzes(which bigint) RETURNS void
    LANGUAGE sql SECURITY DEFINER
    SET search_path TO 'public'
    AS $$
  DELETE FROM quiz_answer r USING quiz_attempt a WHERE a.id = r.attempt AND a.person = which;
  UPDATE quiz_mark m SET words = '' FROM quiz_attempt a WHERE a.id = m.attempt AND a.person = which;
$$;
CREATE FUNCTION public.erase_sheets(which bigint) RETURNS void
    LANGUAGE sql SECURITY DEFINER
    SET search_path TO 'public'
    AS $$
  UPDATE sheet_block_version SET text = '' WHERE author = which
$$;
CREATE FUNCTION public.file_is_used(which bytea) RETURNS boolean
    LANGUAGE sql STABLE
    SET search_path TO 'public'
    AS $$
  SELECT EXISTS (SELECT 1 FROM upload u WHERE u.file = which) OR EXISTS (SELECT 1 FROM item_file f WHERE f.file = which)
    OR EXISTS (SELECT 1 FROM work_file f WHERE f.file = which) OR EXISTS (SELECT 1 FROM body_file f WHERE f.file = which)
$$;
CREATE FUNCTION public.forget_identity() RETURNS trigger
    LANGUAGE plpgsql SECURITY DEFINER
    SET search_path TO 'public'
    AS $$
BEGIN
  DELETE FROM provider_identity WHERE person = NEW.id;
  RETURN NULL;
END $$;
CREATE FUNCTION public.forget_joins(which bigint, at timestamp with time zone) RETURNS void
    LANGUAGE sql SECURITY DEFINER
    SET search_path TO 'public'
    AS $$
  UPDATE person_join p SET before = '{}', separated_at = coalesce(p.separated_at, forget_joins.at) WHERE p.kept = which OR p.other = which
$$;
CREATE FUNCTION public.forget_text_drafts(which_item bigint, before_n integer) RETURNS void
    LANGUAGE plpgsql SECURITY DEFINER
    SET search_path TO 'public'
    AS $$
DECLARE
  gone bytea[];
BEGIN
  WITH old AS (DELETE FROM text_draft_version v WHERE v.item = which_item AND v.n < before_n RETURNING v.body)
  SELECT array_agg(DISTINCT body) INTO gone FROM old;
  DELETE FROM body_file f WHERE f.body = ANY(gone) AND NOT EXISTS (SELECT 1 FROM text_draft_version v WHERE v.body = f.body);
  DELETE FROM body b WHERE b.hash = ANY(gone) AND b.kind = 'draft' AND NOT EXISTS (SELECT 1 FROM text_draft_version v WHERE v.body = b.hash);
END $$;
CREATE FUNCTION public.join_people(kept bigint, other bigint, at timestamp with time zone) RETURNS jsonb
    LANGUAGE plpgsql SECURITY DEFINER
    SET search_path TO 'public'
    AS $$
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
      'versions', (SELECT coalesce(jsonb_agg(to_jsonb(v)), '[]') FROM work_version v WHERE v.work IN (pair.mine, pair.theirs)),
      'feedback', (SELECT coalesce(jsonb_agg(to_jsonb(f)), '[]') FROM feedback f WHERE f.work IN (pair.mine, pair.theirs)));
    DELETE FROM feedback f WHERE f.work IN (pair.mine, pair.theirs);
    DELETE FROM work_version v WHERE v.work IN (pair.mine, pair.theirs);
    DELETE FROM work w WHERE w.id = pair.theirs;
    CREATE TEMP TABLE renumbered ON COMMIT DROP AS
      SELECT v.work, v.n, row_number() OVER (ORDER BY v.handed_in_at, v.work, v.n)::int AS now, v.text, v.handed_in_at, v.claimed_at, v.request, v.taken_back_at,
             v.files, v.links, v.entries, v.judged, v.together, v.by
      FROM jsonb_populate_recordset(NULL::work_version, merged -> -1 -> 'versions') v;
    INSERT INTO work_version (work, n, text, handed_in_at, claimed_at, request, taken_back_at, files, links, entries, judged, together, by)
    SELECT pair.mine, r.now, r.text, r.handed_in_at, r.claimed_at, r.request, r.taken_back_at, r.files, r.links, r.entries, r.judged, r.together, r.by FROM renumbered r;
    INSERT INTO feedback (id, work, n, by, text, again, mark, remarks, returned_at, given, taken_back_at, taken_back_by) OVERRIDING SYSTEM VALUE
    SELECT f.id, pair.mine, r.now, f.by, f.text, f.again, f.mark, f.remarks, f.returned_at, f.given, f.taken_back_at, f.taken_back_by
    FROM jsonb_populate_recordset(NULL::feedback, merged -> -1 -> 'feedback') f LEFT JOIN renumbered r ON r.work = f.work AND r.n = f.n;
    DROP TABLE renumbered;
  END LOOP;
  DELETE FROM option_queue q USING option_queue p WHERE q.item = p.item AND q.option = p.option AND q.id > p.id
    AND q.person IN (kept, other) AND p.person IN (kept, other);
  UPDATE option_queue q SET person = kept WHERE q.person = other;
  INSERT INTO kept_rubric (person, rubric, kept_at)
    SELECT kept, k.rubric, k.kept_at FROM kept_rubric k WHERE k.person = other ON CONFLICT DO NOTHING;
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
CREATE FUNCTION public.join_quizzes(kept bigint, other bigint) RETURNS void
    LANGUAGE plpgsql SECURITY DEFINER
    SET search_path TO 'public'
    AS $$
#variable_conflict use_variable
DECLARE
  pair record;
BEGIN
  FOR pair IN SELECT a.item, max(a.n) AS most FROM quiz_attempt a WHERE a.person = kept GROUP BY a.item LOOP
    UPDATE fact f SET attempt = f.attempt + pair.most
    WHERE f.person = other AND f.item = pair.item AND f.event IN ('begun', 'submitted', 'scored');
  END LOOP;
  UPDATE quiz_attempt o SET person = kept, joined_from = other, joined_n = o.n,
    n = o.n + coalesce((SELECT max(k.n) FROM quiz_attempt k WHERE k.person = kept AND k.item = o.item), 0)
  WHERE o.person = other;
END $$;
CREATE FUNCTION public.keep_section() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
BEGIN
  IF current_user = 'polycline_app' AND OLD.pretend IS NULL THEN
    RAISE EXCEPTION 'section % is not made up', OLD.id USING ERRCODE = 'insufficient_privilege';
  END IF;
  RETURN OLD;
END $$;
CREATE FUNCTION public.move_demo_clock(seconds bigint) RETURNS boolean
    LANGUAGE plpgsql SECURITY DEFINER
    SET search_path TO 'public'
    AS $$
BEGIN
  UPDATE setting SET value = (value::bigint + seconds)::text WHERE key = 'clock-offset-seconds';
  IF NOT FOUND THEN
    RETURN false;
  END IF;
  UPDATE session SET started_at = started_at + make_interval(secs => seconds), expires_at = expires_at + make_interval(secs => seconds);
  UPDATE sign_in_try SET at = at + make_interval(secs => seconds);
  IF seconds < 0 THEN
    WITH gone AS (
      DELETE FROM opened o USING section c, setting s
      WHERE c.id = o.section AND s.key = 'clock-offset-seconds' AND o.at > now() + make_interval(secs => s.value::bigint)
      RETURNING c.edition
    )
    UPDATE edition SET version = version + 1 WHERE id IN (SELECT edition FROM gone);
  END IF;
  RETURN true;
END $$;
CREATE FUNCTION public.move_work(which_section bigint, from_items bigint[], to_items bigint[]) RETURNS void
    LANGUAGE plpgsql SECURITY DEFINER
    SET search_path TO 'public'
    AS $$
BEGIN
  UPDATE fact f SET item = m.there FROM unnest(from_items, to_items) m (here, there) WHERE f.item = m.here AND f.section = which_section;
  UPDATE work w SET item = m.there FROM unnest(from_items, to_items) m (here, there) WHERE w.item = m.here AND w.section = which_section;
  UPDATE opened o SET item = m.there FROM unnest(from_items, to_items) m (here, there) WHERE o.item = m.here AND o.section = which_section;
  UPDATE sheet s SET item = m.there FROM unnest(from_items, to_items) m (here, there) WHERE s.item = m.here AND s.section = which_section
    AND NOT EXISTS (SELECT 1 FROM sheet other WHERE other.item = m.there AND other.section = which_section);
  UPDATE draft d SET item = m.there FROM unnest(from_items, to_items) m (here, there)
  WHERE d.item = m.here AND EXISTS (SELECT 1 FROM enrolment n WHERE n.person = d.person AND n.section = which_section)
    AND NOT EXISTS (SELECT 1 FROM draft other WHERE other.person = d.person AND other.item = m.there);
END $$;
CREATE FUNCTION public.nobody_in_pretend() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
BEGIN
  IF EXISTS (SELECT 1 FROM section WHERE id = NEW.section AND pretend IS NOT NULL) THEN
    RAISE EXCEPTION 'section % is made up', NEW.section USING ERRCODE = 'check_violation';
  END IF;
  RETURN NEW;
END $$;
CREATE FUNCTION public.raise_editions() RETURNS trigger
    LANGUAGE plpgsql SECURITY DEFINER
    SET search_path TO 'public'
    AS $$
BEGIN
  UPDATE edition SET version = version + 1 WHERE master = NEW.id;
  RETURN NULL;
END $$;
CREATE FUNCTION public.refuse_left_behind() RETURNS boolean
    LANGUAGE plpgsql
    AS $$
BEGIN
  RAISE EXCEPTION 'students have worked since' USING ERRCODE = 'PC003';
END $$;
CREATE FUNCTION public.refuse_resting() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
BEGIN
  IF EXISTS (SELECT 1 FROM edition WHERE id = coalesce(NEW.edition, OLD.edition) AND state = 'resting') THEN
    RAISE EXCEPTION 'edition % is at rest', coalesce(NEW.edition, OLD.edition) USING ERRCODE = 'PC001';
  END IF;
  RETURN NEW;
END $$;
CREATE FUNCTION public.remove_section(which bigint) RETURNS void
    LANGUAGE plpgsql SECURITY DEFINER
    SET search_path TO 'public'
    AS $$
BEGIN
  IF EXISTS (SELECT 1 FROM section WHERE id = which AND edition IS NOT NULL) THEN
    RAISE EXCEPTION 'section % follows a course', which USING ERRCODE = 'PC003';
  END IF;
  DELETE FROM private_link WHERE section = which;
  DELETE FROM section_teacher WHERE section = which;
  DELETE FROM section WHERE id = which;
EXCEPTION WHEN foreign_key_violation THEN
  RAISE EXCEPTION 'something stands in section %', which USING ERRCODE = 'PC003';
END $$;
CREATE FUNCTION public.remove_term(which bigint) RETURNS void
    LANGUAGE plpgsql SECURITY DEFINER
    SET search_path TO 'public'
    AS $$
BEGIN
  IF EXISTS (SELECT 1 FROM section WHERE term = which AND pretend IS NULL) OR EXISTS (SELECT 1 FROM edition WHERE term = which) THEN
    RAISE EXCEPTION 'something stands in term %', which USING ERRCODE = 'PC003';
  END IF;
  DELETE FROM adjustment WHERE section IN (SELECT id FROM section WHERE term = which);
  DELETE FROM order_change WHERE section IN (SELECT id FROM section WHERE term = which);
  DELETE FROM taught WHERE section IN (SELECT id FROM section WHERE term = which);
  DELETE FROM meeting_change WHERE section IN (SELECT id FROM section WHERE term = which);
  DELETE FROM section WHERE term = which;
  DELETE FROM change WHERE batch IN (SELECT id FROM batch WHERE scope_kind = 'term' AND scope = which);
  DELETE FROM batch WHERE scope_kind = 'term' AND scope = which;
  DELETE FROM calendar_day WHERE term = which;
  DELETE FROM term WHERE id = which;
END $$;
CREATE FUNCTION public.renamed(what jsonb, old text[], new text[]) RETURNS jsonb
    LANGUAGE plpgsql IMMUTABLE
    AS $$
DECLARE
  written text := what::text;
BEGIN
  FOR n IN 1 .. coalesce(cardinality(old), 0) LOOP
    written := replace(written, old[n], new[n]);
  END LOOP;
  RETURN written::jsonb;
END $$;
CREATE FUNCTION public.renamed_places(here bigint, there bigint, among jsonb) RETURNS jsonb
    LANGUAGE sql SECURITY DEFINER
    SET search_path TO 'public'
    AS $$
  WITH renamed AS (
    UPDATE change c SET before = CASE WHEN c.before ->> 'person' = here::text THEN c.before || jsonb_build_object('person', there) ELSE c.before END,
                        after = CASE WHEN c.after ->> 'person' = here::text THEN c.after || jsonb_build_object('person', there) ELSE c.after END
    WHERE c.tbl = 'enrolment' AND here::text IN (c.before ->> 'person', c.after ->> 'person')
      AND (among IS NULL OR among @> jsonb_build_array(jsonb_build_array(c.batch, c.n)))
    RETURNING c.batch, c.n)
  SELECT coalesce(jsonb_agg(jsonb_build_array(batch, n)), '[]') FROM renamed
$$;
CREATE FUNCTION public.renamed_rows(which text, keyed text[], here bigint, there bigint, among jsonb) RETURNS jsonb
    LANGUAGE plpgsql SECURITY DEFINER
    SET search_path TO 'public'
    AS $_$
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
END $_$;
CREATE FUNCTION public.resume_edition(which bigint) RETURNS void
    LANGUAGE plpgsql SECURITY DEFINER
    SET search_path TO 'public'
    AS $$
BEGIN
  IF EXISTS (SELECT 1 FROM edition later JOIN item i ON i.edition = later.id JOIN fact f ON f.item = i.id WHERE later.carried_from = which) THEN
    RAISE EXCEPTION 'students have begun in the next edition' USING ERRCODE = 'PC003';
  END IF;
  UPDATE edition SET state = 'draft', version = version + 1 WHERE carried_from = which AND state = 'current';
  UPDATE edition SET state = 'current', ends_on = NULL, version = version + 1 WHERE id = which AND state = 'resting';
END $$;
CREATE FUNCTION public.separate_people(which bigint, at timestamp with time zone) RETURNS void
    LANGUAGE plpgsql SECURITY DEFINER
    SET search_path TO 'public'
    AS $$
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
    INSERT INTO feedback (id, work, n, by, text, again, mark, remarks, returned_at, given, taken_back_at, taken_back_by) OVERRIDING SYSTEM VALUE
    SELECT f.id, f.work, f.n, f.by, f.text, f.again, f.mark, f.remarks, f.returned_at, f.given, f.taken_back_at, f.taken_back_by FROM jsonb_populate_recordset(NULL::feedback, pair -> 'feedback') f;
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
CREATE FUNCTION public.separate_quizzes(kept bigint, other bigint) RETURNS void
    LANGUAGE plpgsql SECURITY DEFINER
    SET search_path TO 'public'
    AS $$
#variable_conflict use_variable
BEGIN
  UPDATE fact f SET attempt = a.joined_n FROM quiz_attempt a
  WHERE a.joined_from = other AND a.person = kept AND f.person = other AND f.item = a.item AND f.attempt = a.n
    AND f.event IN ('begun', 'submitted', 'scored');
  UPDATE quiz_attempt a SET person = other, n = a.joined_n, joined_from = NULL, joined_n = NULL
  WHERE a.joined_from = other AND a.person = kept;
END $$;
CREATE FUNCTION public.sweep_files(at timestamp with time zone) RETURNS integer
    LANGUAGE plpgsql SECURITY DEFINER
    SET search_path TO 'public'
    AS $$
DECLARE
  uploads int;
  files int;
BEGIN
  -- Nobody is to begin to use a chunk while it is being deleted.
  LOCK TABLE upload IN EXCLUSIVE MODE;
  DELETE FROM upload WHERE begun_at < sweep_files.at - CASE WHEN file IS NULL THEN interval '1 day' ELSE interval '7 days' END;
  GET DIAGNOSTICS uploads = ROW_COUNT;
  DELETE FROM work_file w WHERE w.brought_at < sweep_files.at - interval '1 day'
    AND w.id NOT IN (SELECT unnest(d.files) FROM draft d WHERE d.files IS NOT NULL
                     UNION ALL SELECT unnest(v.files) FROM work_version v WHERE v.files IS NOT NULL
                     UNION ALL SELECT r.file FROM quiz_answer r WHERE r.file IS NOT NULL)
    -- Two accounts that were joined may be separated again.
    AND NOT EXISTS (SELECT 1 FROM person_join j WHERE j.separated_at IS NULL);
  UPDATE stored_file s SET unused_since = CASE WHEN s.unused_since IS NULL THEN sweep_files.at END
  WHERE (s.unused_since IS NULL) = NOT file_is_used(s.hash);
  DELETE FROM stored_file s WHERE s.unused_since < sweep_files.at - interval '30 days' AND NOT file_is_used(s.hash);
  GET DIAGNOSTICS files = ROW_COUNT;
  IF uploads + files > 0 THEN
    DELETE FROM file_chunk c
    WHERE NOT EXISTS (SELECT 1 FROM file_part p WHERE p.chunk = c.hash) AND NOT EXISTS (SELECT 1 FROM upload_part p WHERE p.chunk = c.hash);
  END IF;
  RETURN files;
END $$;
CREATE FUNCTION public.take_back_course(which bigint) RETURNS void
    LANGUAGE plpgsql SECURITY DEFINER
    SET search_path TO 'public'
    AS $$
DECLARE
  held bigint;
BEGIN
  SELECT master INTO held FROM edition WHERE id = which AND taken_in_at IS NOT NULL FOR UPDATE;
  IF held IS NULL THEN
    RAISE EXCEPTION 'edition % was not taken in', which USING ERRCODE = 'PC002';
  END IF;
  IF EXISTS (SELECT 1 FROM section WHERE edition = which AND pretend IS NULL) OR EXISTS (SELECT 1 FROM edition WHERE master = held AND id <> which)
     OR EXISTS (SELECT 1 FROM item i WHERE i.edition = which AND (EXISTS (SELECT 1 FROM fact f WHERE f.item = i.id) OR EXISTS (SELECT 1 FROM work w WHERE w.item = i.id))) THEN
    RAISE EXCEPTION 'something came of edition %', which USING ERRCODE = 'PC003';
  END IF;
  DELETE FROM change WHERE batch IN (SELECT id FROM batch WHERE scope_kind = 'edition' AND scope = which);
  DELETE FROM batch WHERE scope_kind = 'edition' AND scope = which;
  DELETE FROM looked WHERE edition = which;
  DELETE FROM item WHERE edition = which;
  DELETE FROM lesson WHERE edition = which;
  DELETE FROM unit WHERE edition = which;
  UPDATE section SET edition = NULL, version = version + 1 WHERE edition = which;
  DELETE FROM edition WHERE id = which;
  DELETE FROM master_member WHERE master = held;
  DELETE FROM master WHERE id = held;
END $$;
CREATE FUNCTION public.take_back_edition(which bigint) RETURNS bigint
    LANGUAGE plpgsql SECURITY DEFINER
    SET search_path TO 'public'
    AS $$
DECLARE
  origin bigint;
BEGIN
  SELECT carried_from INTO origin FROM edition WHERE id = which FOR UPDATE;
  IF origin IS NULL THEN
    RAISE EXCEPTION 'edition % was not rolled over', which USING ERRCODE = 'PC002';
  END IF;
  IF EXISTS (SELECT 1 FROM item i WHERE i.edition = which AND (
       EXISTS (SELECT 1 FROM fact f WHERE f.item = i.id) OR EXISTS (SELECT 1 FROM draft d WHERE d.item = i.id) OR EXISTS (SELECT 1 FROM work w WHERE w.item = i.id)))
     OR EXISTS (SELECT 1 FROM edition e WHERE e.carried_from = which) THEN
    RAISE EXCEPTION 'students have worked in edition %', which USING ERRCODE = 'PC003';
  END IF;
  DELETE FROM change WHERE batch IN (SELECT id FROM batch WHERE scope_kind = 'edition' AND scope = which);
  DELETE FROM batch WHERE scope_kind = 'edition' AND scope = which;
  DELETE FROM adjustment WHERE section IN (SELECT id FROM section WHERE edition = which);
  DELETE FROM order_change WHERE section IN (SELECT id FROM section WHERE edition = which);
  DELETE FROM opened WHERE section IN (SELECT id FROM section WHERE edition = which);
  DELETE FROM taught WHERE section IN (SELECT id FROM section WHERE edition = which);
  DELETE FROM meeting_change WHERE section IN (SELECT id FROM section WHERE edition = which AND succeeds IS NOT NULL);
  -- A section that was there before and joined keeps all it has, and follows nothing; those that were made for it go.
  UPDATE section SET edition = NULL, version = version + 1 WHERE edition = which AND succeeds IS NULL;
  DELETE FROM enrolment WHERE section IN (SELECT id FROM section WHERE edition = which);
  DELETE FROM section_teacher WHERE section IN (SELECT id FROM section WHERE edition = which);
  DELETE FROM section WHERE edition = which;
  DELETE FROM item WHERE edition = which;
  DELETE FROM lesson WHERE edition = which;
  DELETE FROM unit WHERE edition = which;
  DELETE FROM edition WHERE id = which;
  UPDATE edition SET state = 'current', version = version + 1 WHERE id = origin;
  RETURN origin;
END $$;
CREATE FUNCTION public.take_back_scores(reason uuid, where_given bigint, taker bigint, moment timestamp with time zone) RETURNS integer
    LANGUAGE sql SECURITY DEFINER
    SET search_path TO 'public'
    AS $$
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
CREATE FUNCTION public.undo_depth(of_batch bigint) RETURNS integer
    LANGUAGE sql STABLE
    AS $$
  WITH RECURSIVE back (batch, depth) AS (
    SELECT undoes, 1 FROM batch WHERE id = of_batch AND undoes IS NOT NULL
    UNION ALL
    SELECT b.undoes, back.depth + 1 FROM back JOIN batch b ON b.id = back.batch WHERE b.undoes IS NOT NULL
  )
  SELECT coalesce(max(depth), 0) FROM back
$$;
CREATE FUNCTION public.void_earlier_scores(which bigint, what bigint, voider bigint, moment timestamp with time zone, reason uuid) RETURNS void
    LANGUAGE sql SECURITY DEFINER
    SET search_path TO 'public'
    AS $$
  UPDATE fact f SET voided_at = moment, voided_by = voider, voided_for = reason
  WHERE f.person = which AND f.item = what AND f.event = 'scored' AND f.voided_at IS NULL
    AND f.id < (SELECT max(l.id) FROM fact l WHERE l.person = which AND l.item = what AND l.event = 'scored' AND l.voided_at IS NULL);
$$;
CREATE AGGREGATE public.words_together(tsvector) (
    SFUNC = tsvector_concat,
    STYPE = tsvector
);
CREATE TABLE public.adjustment (
    section bigint NOT NULL,
    target uuid NOT NULL,
    field text NOT NULL,
    value jsonb,
    version bigint DEFAULT 1 NOT NULL,
    CONSTRAINT adjustment_field_check CHECK ((field = ANY (ARRAY['opens'::text, 'due'::text, 'closes'::text, 'for'::text, 'published'::text, 'hold'::text, 'skip'::text, 'length'::text, 'pin'::text, 'lesson'::text])))
);
CREATE TABLE public.arrangement (
    edition bigint NOT NULL,
    person bigint NOT NULL,
    due_days integer,
    quiz_time integer,
    reason text DEFAULT ''::text NOT NULL,
    version bigint DEFAULT 1 NOT NULL,
    CONSTRAINT arrangement_check CHECK (((due_days IS NOT NULL) OR (quiz_time IS NOT NULL))),
    CONSTRAINT arrangement_due_days_check CHECK (((due_days >= 0) AND (due_days <= 1000))),
    CONSTRAINT arrangement_quiz_time_check CHECK (((quiz_time >= 0) AND (quiz_time <= 1000))),
    CONSTRAINT arrangement_reason_check CHECK ((length(reason) <= 500))
);
CREATE TABLE public.audit (
    id bigint NOT NULL,
    at timestamp with time zone NOT NULL,
    who bigint,
    what text NOT NULL,
    about jsonb DEFAULT '{}'::jsonb NOT NULL
);
ALTER TABLE public.audit ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.audit_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.batch (
    id bigint NOT NULL,
    scope_kind text NOT NULL,
    scope bigint NOT NULL,
    version bigint NOT NULL,
    command text NOT NULL,
    words text NOT NULL,
    author bigint NOT NULL,
    at timestamp with time zone NOT NULL,
    undoes bigint,
    CONSTRAINT batch_scope_kind_check CHECK ((scope_kind = ANY (ARRAY['edition'::text, 'section'::text, 'term'::text, 'enrolment'::text])))
);
ALTER TABLE public.batch ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.batch_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.body (
    hash bytea NOT NULL,
    kind text NOT NULL,
    data jsonb NOT NULL,
    CONSTRAINT body_hash_check CHECK ((length(hash) = 32)),
    CONSTRAINT body_kind_check CHECK ((kind = ANY (ARRAY['text'::text, 'draft'::text, 'quiz'::text, 'rubric'::text])))
);
CREATE TABLE public.body_file (
    body bytea NOT NULL,
    file bytea NOT NULL
);
CREATE TABLE public.calendar_day (
    id bigint NOT NULL,
    term bigint NOT NULL,
    kind text NOT NULL,
    first date NOT NULL,
    last date NOT NULL,
    name text NOT NULL,
    runs text,
    periods jsonb,
    version bigint DEFAULT 1 NOT NULL,
    CONSTRAINT calendar_day_check CHECK ((first <= last)),
    CONSTRAINT calendar_day_check1 CHECK (((kind = 'closure'::text) OR (first = last))),
    CONSTRAINT calendar_day_check2 CHECK (((kind = 'special'::text) OR ((runs IS NULL) AND (periods IS NULL)))),
    CONSTRAINT calendar_day_kind_check CHECK ((kind = ANY (ARRAY['closure'::text, 'extra'::text, 'special'::text])))
);
ALTER TABLE public.calendar_day ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.calendar_day_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.cannot_open (
    id bigint NOT NULL,
    person bigint NOT NULL,
    item bigint NOT NULL,
    section bigint NOT NULL,
    note text NOT NULL,
    said_at timestamp with time zone NOT NULL,
    was_open boolean NOT NULL,
    settled_at timestamp with time zone,
    settled_by bigint,
    CONSTRAINT cannot_open_note_check CHECK ((length(note) <= 500))
);
ALTER TABLE public.cannot_open ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.cannot_open_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.change (
    batch bigint NOT NULL,
    n integer NOT NULL,
    tbl text NOT NULL,
    key jsonb NOT NULL,
    before jsonb,
    after jsonb,
    CONSTRAINT change_check CHECK (((before IS NOT NULL) OR (after IS NOT NULL)))
);
CREATE TABLE public.code_use (
    id bigint NOT NULL,
    code bigint NOT NULL,
    person bigint NOT NULL,
    at timestamp with time zone NOT NULL,
    state text NOT NULL,
    answered_by bigint,
    answered_at timestamp with time zone,
    CONSTRAINT code_use_state_check CHECK ((state = ANY (ARRAY['waiting'::text, 'in'::text, 'refused'::text])))
);
ALTER TABLE public.code_use ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.code_use_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.copy_text (
    file bigint NOT NULL,
    text text NOT NULL,
    saved_at timestamp with time zone NOT NULL,
    CONSTRAINT copy_text_text_check CHECK ((length(text) <= 200000))
);
CREATE TABLE public.draft (
    person bigint NOT NULL,
    item bigint NOT NULL,
    text text NOT NULL,
    saved_at timestamp with time zone NOT NULL,
    missed_at timestamp with time zone,
    claimed_at timestamp with time zone,
    version bigint DEFAULT 1 NOT NULL,
    files bigint[],
    links text[],
    entries jsonb,
    judged jsonb,
    CONSTRAINT draft_claimed_at CHECK (((claimed_at >= '1900-01-01 00:00:00+00'::timestamp with time zone) AND (claimed_at <= '3000-01-01 00:00:00+00'::timestamp with time zone)))
);
CREATE TABLE public.edition (
    id bigint NOT NULL,
    master bigint NOT NULL,
    ordinal integer NOT NULL,
    title text NOT NULL,
    term bigint NOT NULL,
    basis text DEFAULT 'meetings'::text NOT NULL,
    min_start integer DEFAULT 10 NOT NULL,
    codes text DEFAULT 'by-unit'::text NOT NULL,
    before text DEFAULT 'listed'::text NOT NULL,
    state text DEFAULT 'draft'::text NOT NULL,
    version bigint DEFAULT 1 NOT NULL,
    carried_from bigint,
    own_version bigint DEFAULT 1 NOT NULL,
    codes_fixed_at timestamp with time zone,
    taken_in_at timestamp with time zone,
    levels jsonb,
    ends_on date,
    adding_up jsonb,
    CONSTRAINT edition_basis_check CHECK ((basis = ANY (ARRAY['meetings'::text, 'minutes'::text]))),
    CONSTRAINT edition_before_check CHECK ((before = ANY (ARRAY['listed'::text, 'unseen'::text]))),
    CONSTRAINT edition_codes_check CHECK ((codes = ANY (ARRAY['by-unit'::text, 'straight'::text]))),
    CONSTRAINT edition_min_start_check CHECK ((min_start >= 0)),
    CONSTRAINT edition_ordinal_check CHECK ((ordinal >= 1)),
    CONSTRAINT edition_state_check CHECK ((state = ANY (ARRAY['draft'::text, 'current'::text, 'resting'::text]))),
    CONSTRAINT edition_title_check CHECK ((title <> ''::text))
);
ALTER TABLE public.edition ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.edition_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.enrolment (
    id bigint NOT NULL,
    section bigint NOT NULL,
    person bigint NOT NULL,
    period daterange NOT NULL,
    version bigint DEFAULT 1 NOT NULL,
    CONSTRAINT enrolment_period_check CHECK ((NOT isempty(period)))
);
ALTER TABLE public.enrolment ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.enrolment_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.exception (
    edition bigint NOT NULL,
    person bigint NOT NULL,
    item uuid NOT NULL,
    field text NOT NULL,
    value jsonb,
    move text DEFAULT ''::text NOT NULL,
    version bigint DEFAULT 1 NOT NULL,
    CONSTRAINT exception_field_check CHECK ((field = ANY (ARRAY['opens'::text, 'due'::text, 'closes'::text, 'excused'::text, 'include'::text, 'exclude'::text, 'unlocked'::text])))
);
CREATE TABLE public.fact (
    id bigint NOT NULL,
    person bigint NOT NULL,
    item bigint NOT NULL,
    section bigint NOT NULL,
    event text NOT NULL,
    at timestamp with time zone NOT NULL,
    recorded_at timestamp with time zone NOT NULL,
    by bigint NOT NULL,
    score numeric,
    attempt integer DEFAULT 1 NOT NULL,
    option text,
    again boolean DEFAULT false NOT NULL,
    request uuid NOT NULL,
    voided_at timestamp with time zone,
    voided_by bigint,
    given uuid,
    voided_for uuid,
    CONSTRAINT fact_attempt_check CHECK ((attempt >= 1)),
    CONSTRAINT fact_check CHECK (((event = 'scored'::text) = (score IS NOT NULL))),
    CONSTRAINT fact_check1 CHECK (((voided_at IS NULL) = (voided_by IS NULL))),
    CONSTRAINT fact_event_check CHECK ((event = ANY (ARRAY['opened'::text, 'begun'::text, 'ticked'::text, 'unticked'::text, 'submitted'::text, 'taken-back'::text, 'returned'::text, 'scored'::text, 'picked'::text]))),
    CONSTRAINT fact_score_check CHECK (((score >= (0)::numeric) AND (score <= (10000)::numeric)))
);
ALTER TABLE public.fact ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.fact_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.feedback (
    id bigint NOT NULL,
    work bigint NOT NULL,
    n integer,
    by bigint NOT NULL,
    text text NOT NULL,
    again boolean NOT NULL,
    returned_at timestamp with time zone NOT NULL,
    mark jsonb,
    given uuid,
    taken_back_at timestamp with time zone,
    taken_back_by bigint,
    remarks jsonb,
    CONSTRAINT feedback_check CHECK (((taken_back_at IS NULL) = (taken_back_by IS NULL))),
    CONSTRAINT feedback_check1 CHECK (((n IS NOT NULL) OR (mark IS NOT NULL))),
    CONSTRAINT feedback_remarks_check CHECK (((jsonb_typeof(remarks) = 'array'::text) AND ((jsonb_array_length(remarks) >= 1) AND (jsonb_array_length(remarks) <= 100))))
);
ALTER TABLE public.feedback ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.feedback_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.file_chunk (
    hash bytea NOT NULL,
    bytes bytea NOT NULL,
    CONSTRAINT file_chunk_bytes_check CHECK (((length(bytes) >= 1) AND (length(bytes) <= 262144))),
    CONSTRAINT file_chunk_hash_check CHECK ((length(hash) = 32))
);
ALTER TABLE ONLY public.file_chunk ALTER COLUMN bytes SET STORAGE EXTERNAL;
CREATE TABLE public.file_part (
    file bytea NOT NULL,
    n integer NOT NULL,
    chunk bytea NOT NULL,
    CONSTRAINT file_part_n_check CHECK ((n >= 0))
);
CREATE TABLE public.file_text (
    file bytea NOT NULL,
    text text DEFAULT ''::text NOT NULL,
    words tsvector GENERATED ALWAYS AS (to_tsvector('english'::regconfig, text)) STORED NOT NULL,
    CONSTRAINT file_text_text_check CHECK ((length(text) <= 200000))
);
CREATE TABLE public.home (
    edition bigint NOT NULL,
    person bigint NOT NULL,
    section bigint NOT NULL,
    version bigint DEFAULT 1 NOT NULL
);
CREATE TABLE public.in_group (
    student_group bigint NOT NULL,
    person bigint NOT NULL,
    at timestamp with time zone NOT NULL,
    version bigint DEFAULT 1 NOT NULL
);
CREATE TABLE public.item (
    id bigint NOT NULL,
    edition bigint NOT NULL,
    unit bigint NOT NULL,
    lesson bigint,
    lineage uuid NOT NULL,
    rank text NOT NULL COLLATE pg_catalog."C",
    kind text NOT NULL,
    purpose text NOT NULL,
    title text NOT NULL,
    published boolean DEFAULT false NOT NULL,
    code text,
    removed_at timestamp with time zone,
    version bigint DEFAULT 1 NOT NULL,
    body bytea,
    opens jsonb,
    due jsonb,
    closes jsonb,
    gate jsonb,
    for_whom jsonb,
    before text,
    options text[] DEFAULT '{}'::text[] NOT NULL,
    picks integer DEFAULT 1 NOT NULL,
    section bigint,
    asks jsonb,
    address text,
    about_teacher boolean DEFAULT false NOT NULL,
    about_whom bigint,
    outcomes text[] DEFAULT '{}'::text[] NOT NULL,
    marked jsonb,
    quiz bytea,
    rubric bytea,
    offered jsonb,
    CONSTRAINT item_about_check CHECK ((about_teacher OR (about_whom IS NULL))),
    CONSTRAINT item_address_check CHECK (((address ~ '^https?://[^ ]+$'::text) AND (length(address) <= 2000))),
    CONSTRAINT item_before_check CHECK ((before = ANY (ARRAY['listed'::text, 'unseen'::text]))),
    CONSTRAINT item_code_check CHECK ((code <> ''::text)),
    CONSTRAINT item_kind_check CHECK ((kind = ANY (ARRAY['page'::text, 'link'::text, 'handout'::text, 'task'::text, 'quiz'::text, 'choice'::text, 'discussion'::text]))),
    CONSTRAINT item_outcomes_check CHECK ((cardinality(outcomes) <= 20)),
    CONSTRAINT item_picks_check CHECK ((picks >= 1)),
    CONSTRAINT item_purpose_check CHECK ((purpose = ANY (ARRAY['to-read'::text, 'practice'::text, 'for-marks'::text]))),
    CONSTRAINT item_title_check CHECK (((title <> ''::text) AND (length(title) <= 200)))
);
CREATE TABLE public.item_file (
    id bigint NOT NULL,
    edition bigint NOT NULL,
    item bigint NOT NULL,
    section bigint,
    rank text NOT NULL COLLATE pg_catalog."C",
    name text NOT NULL,
    file bytea NOT NULL,
    replaces bigint,
    brought_by bigint NOT NULL,
    brought_at timestamp with time zone NOT NULL,
    removed_at timestamp with time zone,
    version bigint DEFAULT 1 NOT NULL,
    given text DEFAULT 'read'::text NOT NULL,
    copy_name text,
    CONSTRAINT item_file_copy_name_check CHECK (((length(copy_name) >= 1) AND (length(copy_name) <= 120))),
    CONSTRAINT item_file_given_check CHECK ((given = ANY (ARRAY['read'::text, 'copy'::text, 'together'::text]))),
    CONSTRAINT item_file_name_check CHECK (((name <> ''::text) AND (length(name) <= 200)))
);
ALTER TABLE public.item_file ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.item_file_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
ALTER TABLE public.item ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.item_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.kept_rubric (
    id bigint NOT NULL,
    person bigint NOT NULL,
    rubric bytea NOT NULL,
    kept_at timestamp with time zone NOT NULL
);
ALTER TABLE public.kept_rubric ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.kept_rubric_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.known_address (
    person bigint NOT NULL,
    address inet NOT NULL,
    last_at timestamp with time zone NOT NULL
);
CREATE TABLE public.known_browser (
    token_hash bytea NOT NULL,
    person bigint NOT NULL,
    last_at timestamp with time zone NOT NULL
);
CREATE TABLE public.lesson (
    id bigint NOT NULL,
    edition bigint NOT NULL,
    unit bigint NOT NULL,
    lineage uuid NOT NULL,
    rank text NOT NULL COLLATE pg_catalog."C",
    title text NOT NULL,
    length integer NOT NULL,
    min_length integer,
    optional boolean DEFAULT false NOT NULL,
    published boolean DEFAULT false NOT NULL,
    removed_at timestamp with time zone,
    version bigint DEFAULT 1 NOT NULL,
    gate jsonb,
    section bigint,
    CONSTRAINT lesson_check CHECK (((min_length >= 0) AND (min_length <= length))),
    CONSTRAINT lesson_length_check CHECK ((length >= 0)),
    CONSTRAINT lesson_title_check CHECK ((title <> ''::text))
);
ALTER TABLE public.lesson ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.lesson_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.link_check (
    address text NOT NULL,
    outcome text NOT NULL,
    checked_at timestamp with time zone NOT NULL,
    reached_at timestamp with time zone,
    CONSTRAINT link_check_address_check CHECK ((length(address) <= 2000)),
    CONSTRAINT link_check_outcome_check CHECK ((outcome = ANY (ARRAY['open'::text, 'sign-in'::text, 'gone'::text, 'silent'::text, 'not-tried'::text])))
);
CREATE TABLE public.looked (
    person bigint NOT NULL,
    edition bigint NOT NULL,
    batch bigint NOT NULL,
    at timestamp with time zone NOT NULL
);
CREATE TABLE public.mail (
    id bigint NOT NULL,
    person bigint NOT NULL,
    subject text NOT NULL,
    body text NOT NULL,
    made_at timestamp with time zone DEFAULT now() NOT NULL,
    next_try timestamp with time zone DEFAULT now() NOT NULL,
    tries integer DEFAULT 0 NOT NULL,
    sent_at timestamp with time zone,
    given_up_at timestamp with time zone,
    CONSTRAINT mail_body_check CHECK ((length(body) <= 20000)),
    CONSTRAINT mail_subject_check CHECK (((length(subject) >= 1) AND (length(subject) <= 200))),
    CONSTRAINT mail_tries_check CHECK ((tries >= 0))
);
ALTER TABLE public.mail ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.mail_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.master (
    id bigint NOT NULL,
    title text NOT NULL,
    words jsonb DEFAULT '{}'::jsonb NOT NULL,
    subject text DEFAULT ''::text NOT NULL,
    version bigint DEFAULT 1 NOT NULL,
    CONSTRAINT master_subject_check CHECK ((length(subject) <= 120)),
    CONSTRAINT master_title_check CHECK ((title <> ''::text))
);
ALTER TABLE public.master ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.master_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.master_member (
    master bigint NOT NULL,
    person bigint NOT NULL,
    role text NOT NULL,
    CONSTRAINT master_member_role_check CHECK ((role = ANY (ARRAY['lead'::text, 'co'::text, 'sections'::text, 'reader'::text])))
);
CREATE TABLE public.meeting_change (
    section bigint NOT NULL,
    seq integer NOT NULL,
    change jsonb NOT NULL,
    version bigint DEFAULT 1 NOT NULL,
    CONSTRAINT meeting_change_seq_check CHECK ((seq >= 1))
);
CREATE TABLE public.one_time_link (
    token_hash bytea NOT NULL,
    person bigint,
    made_at timestamp with time zone NOT NULL,
    expires_at timestamp with time zone NOT NULL,
    used_at timestamp with time zone,
    CONSTRAINT one_time_link_check CHECK ((expires_at > made_at)),
    CONSTRAINT one_time_link_token_hash_check CHECK ((length(token_hash) = 32))
);
CREATE TABLE public.opened (
    section bigint NOT NULL,
    item bigint NOT NULL,
    at timestamp with time zone NOT NULL,
    due timestamp with time zone,
    recorded_at timestamp with time zone NOT NULL
);
CREATE TABLE public.option_queue (
    id bigint NOT NULL,
    item bigint NOT NULL,
    section bigint NOT NULL,
    person bigint NOT NULL,
    option text NOT NULL,
    at timestamp with time zone NOT NULL,
    came_up_at timestamp with time zone
);
ALTER TABLE public.option_queue ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.option_queue_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.order_change (
    section bigint NOT NULL,
    seq integer NOT NULL,
    target uuid NOT NULL,
    change jsonb NOT NULL,
    version bigint DEFAULT 1 NOT NULL,
    CONSTRAINT order_change_seq_check CHECK ((seq >= 1))
);
CREATE TABLE public.outcome (
    code text NOT NULL COLLATE pg_catalog."C",
    words text NOT NULL,
    subject text NOT NULL,
    rank integer NOT NULL,
    removed_at timestamp with time zone,
    CONSTRAINT outcome_code_check CHECK (((code <> ''::text) AND (length(code) <= 40))),
    CONSTRAINT outcome_subject_check CHECK ((length(subject) <= 80)),
    CONSTRAINT outcome_words_check CHECK (((words <> ''::text) AND (length(words) <= 500)))
);
CREATE TABLE public.outcome_import (
    id bigint NOT NULL,
    by bigint NOT NULL,
    at timestamp with time zone NOT NULL,
    before jsonb NOT NULL,
    undone_at timestamp with time zone
);
ALTER TABLE public.outcome_import ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.outcome_import_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.person (
    id bigint NOT NULL,
    name text NOT NULL,
    email public.citext NOT NULL,
    password_hash text NOT NULL,
    office boolean DEFAULT false NOT NULL,
    removed_at timestamp with time zone,
    teacher boolean DEFAULT false NOT NULL,
    joined_into bigint,
    CONSTRAINT person_name_check CHECK ((name <> ''::text))
);
ALTER TABLE public.person ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.person_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.person_join (
    id bigint NOT NULL,
    kept bigint NOT NULL,
    other bigint NOT NULL,
    at timestamp with time zone NOT NULL,
    before jsonb NOT NULL,
    separated_at timestamp with time zone,
    CONSTRAINT person_join_check CHECK ((kept <> other))
);
ALTER TABLE public.person_join ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.person_join_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.section (
    id bigint NOT NULL,
    name text NOT NULL,
    letter text NOT NULL,
    term bigint NOT NULL,
    edition bigint,
    version bigint DEFAULT 1 NOT NULL,
    slots jsonb DEFAULT '[]'::jsonb NOT NULL,
    succeeds bigint,
    follows_from date,
    subject text DEFAULT ''::text NOT NULL,
    year text DEFAULT ''::text NOT NULL,
    ended_on date,
    pretend jsonb,
    CONSTRAINT section_letter_check CHECK ((letter ~ '^[A-Z]$'::text)),
    CONSTRAINT section_name_check CHECK ((name <> ''::text)),
    CONSTRAINT section_pretend_check CHECK ((jsonb_typeof(pretend) = 'array'::text)),
    CONSTRAINT section_subject_check CHECK ((length(subject) <= 120)),
    CONSTRAINT section_year_check CHECK ((length(year) <= 40))
);
CREATE VIEW public.place AS
 SELECT n.id,
    n.section,
    n.person,
    n.version,
        CASE
            WHEN (c.ended_on IS NULL) THEN n.period
            ELSE (n.period * daterange(NULL::date, c.ended_on, '(]'::text))
        END AS period
   FROM (public.enrolment n
     JOIN public.section c ON ((c.id = n.section)))
  WHERE ((c.ended_on IS NULL) OR (n.period && daterange(NULL::date, c.ended_on, '(]'::text)));
CREATE TABLE public.private_link (
    token_hash bytea NOT NULL,
    kind text NOT NULL,
    person bigint NOT NULL,
    section bigint,
    made_at timestamp with time zone NOT NULL,
    withdrawn_at timestamp with time zone,
    CONSTRAINT private_link_check CHECK (((kind = 'section-calendar'::text) = (section IS NOT NULL))),
    CONSTRAINT private_link_kind_check CHECK ((kind = ANY (ARRAY['section-calendar'::text, 'teacher-calendar'::text, 'student-calendar'::text]))),
    CONSTRAINT private_link_token_hash_check CHECK ((length(token_hash) = 32))
);
CREATE TABLE public.provider_identity (
    issuer text NOT NULL,
    subject text NOT NULL,
    person bigint NOT NULL,
    linked_at timestamp with time zone NOT NULL,
    CONSTRAINT provider_identity_issuer_check CHECK (((length(issuer) >= 1) AND (length(issuer) <= 500))),
    CONSTRAINT provider_identity_subject_check CHECK (((length(subject) >= 1) AND (length(subject) <= 255)))
);
CREATE TABLE public.provider_trip (
    state_hash bytea NOT NULL,
    browser_hash bytea NOT NULL,
    nonce text NOT NULL,
    verifier text NOT NULL,
    next text NOT NULL,
    expires_at timestamp with time zone NOT NULL,
    CONSTRAINT provider_trip_browser_hash_check CHECK ((length(browser_hash) = 32)),
    CONSTRAINT provider_trip_next_check CHECK ((length(next) <= 2000)),
    CONSTRAINT provider_trip_state_hash_check CHECK ((length(state_hash) = 32))
);
CREATE TABLE public.quiz_answer (
    attempt bigint NOT NULL,
    seq integer NOT NULL,
    question text NOT NULL,
    answer jsonb NOT NULL,
    at timestamp with time zone NOT NULL,
    file bigint,
    CONSTRAINT quiz_answer_seq_check CHECK ((seq >= 1))
);
CREATE TABLE public.quiz_attempt (
    id bigint NOT NULL,
    person bigint NOT NULL,
    item bigint NOT NULL,
    section bigint NOT NULL,
    n integer NOT NULL,
    paper bytea NOT NULL,
    began_at timestamp with time zone NOT NULL,
    ended_at timestamp with time zone,
    settled_at timestamp with time zone,
    scored_by bytea,
    joined_from bigint,
    joined_n integer,
    lot text DEFAULT (gen_random_uuid())::text NOT NULL,
    CONSTRAINT quiz_attempt_check CHECK ((ended_at >= began_at)),
    CONSTRAINT quiz_attempt_n_check CHECK ((n >= 1))
);
ALTER TABLE public.quiz_attempt ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.quiz_attempt_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.quiz_mark (
    id bigint NOT NULL,
    attempt bigint NOT NULL,
    question text NOT NULL,
    points numeric(7,2) NOT NULL,
    words text NOT NULL,
    by bigint NOT NULL,
    at timestamp with time zone NOT NULL,
    CONSTRAINT quiz_mark_points_check CHECK ((points >= (0)::numeric))
);
ALTER TABLE public.quiz_mark ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.quiz_mark_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.reader (
    item bigint NOT NULL,
    person bigint NOT NULL,
    by bigint NOT NULL,
    at timestamp with time zone NOT NULL
);
CREATE TABLE public.ready_mark (
    work bigint NOT NULL,
    n integer NOT NULL,
    by bigint NOT NULL,
    at timestamp with time zone NOT NULL,
    words text NOT NULL,
    request jsonb NOT NULL,
    goes_at timestamp with time zone,
    with_all boolean DEFAULT false NOT NULL,
    CONSTRAINT ready_mark_n_check CHECK ((n >= 1))
);
CREATE TABLE public.request (
    person bigint NOT NULL,
    key uuid NOT NULL,
    asked bytea NOT NULL,
    status integer,
    answer jsonb,
    at timestamp with time zone NOT NULL
);
CREATE TABLE public.roster_fetch (
    id bigint NOT NULL,
    at timestamp with time zone NOT NULL,
    term bigint NOT NULL,
    night date,
    by bigint,
    state text NOT NULL,
    sentence text DEFAULT ''::text NOT NULL,
    content bytea,
    CONSTRAINT roster_fetch_content_check CHECK ((length(content) <= 15000000)),
    CONSTRAINT roster_fetch_sentence_check CHECK ((length(sentence) <= 2000)),
    CONSTRAINT roster_fetch_state_check CHECK ((state = ANY (ARRAY['fetching'::text, 'waiting'::text, 'nothing'::text, 'failed'::text, 'imported'::text, 'set-aside'::text, 'overtaken'::text])))
);
ALTER TABLE public.roster_fetch ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.roster_fetch_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.roster_import (
    id bigint NOT NULL,
    at timestamp with time zone NOT NULL,
    by bigint NOT NULL,
    term bigint NOT NULL,
    file text NOT NULL,
    sentence text NOT NULL,
    written jsonb NOT NULL,
    taken_back_at timestamp with time zone
);
ALTER TABLE public.roster_import ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.roster_import_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.roster_key (
    source text NOT NULL,
    kind text NOT NULL,
    key text NOT NULL,
    about bigint NOT NULL,
    CONSTRAINT roster_key_key_check CHECK (((length(key) >= 1) AND (length(key) <= 200))),
    CONSTRAINT roster_key_kind_check CHECK ((kind = ANY (ARRAY['person'::text, 'section'::text]))),
    CONSTRAINT roster_key_source_check CHECK (((length(source) >= 1) AND (length(source) <= 200)))
);
CREATE TABLE public.section_code (
    id bigint NOT NULL,
    section bigint NOT NULL,
    code text NOT NULL,
    made_by bigint NOT NULL,
    made_at timestamp with time zone NOT NULL,
    until date NOT NULL,
    most integer NOT NULL,
    approve boolean NOT NULL,
    withdrawn_at timestamp with time zone,
    CONSTRAINT section_code_code_check CHECK ((code ~ '^[A-Z2-9]{8}$'::text)),
    CONSTRAINT section_code_most_check CHECK (((most >= 1) AND (most <= 500)))
);
ALTER TABLE public.section_code ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.section_code_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
ALTER TABLE public.section ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.section_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.section_teacher (
    section bigint NOT NULL,
    person bigint NOT NULL
);
CREATE TABLE public.session (
    token_hash bytea NOT NULL,
    person bigint NOT NULL,
    started_at timestamp with time zone NOT NULL,
    expires_at timestamp with time zone NOT NULL,
    CONSTRAINT session_token_hash_check CHECK ((length(token_hash) = 32))
);
CREATE TABLE public.setting (
    key text NOT NULL,
    value text NOT NULL
);
CREATE TABLE public.sheet (
    id bigint NOT NULL,
    item bigint NOT NULL,
    section bigint NOT NULL,
    begun_at timestamp with time zone NOT NULL
);
CREATE TABLE public.sheet_block (
    id bigint NOT NULL,
    sheet bigint NOT NULL,
    rank text NOT NULL COLLATE pg_catalog."C"
);
ALTER TABLE public.sheet_block ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.sheet_block_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.sheet_block_version (
    block bigint NOT NULL,
    n integer NOT NULL,
    base integer NOT NULL,
    author bigint,
    text text NOT NULL,
    at timestamp with time zone NOT NULL,
    CONSTRAINT sheet_block_version_check CHECK (((base >= 0) AND (base <= (n - 1)))),
    CONSTRAINT sheet_block_version_n_check CHECK ((n > 0)),
    CONSTRAINT sheet_block_version_text_check CHECK ((length(text) <= 3000))
);
ALTER TABLE public.sheet ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.sheet_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.sign_in_try (
    id bigint NOT NULL,
    account public.citext NOT NULL,
    address inet NOT NULL,
    at timestamp with time zone NOT NULL,
    wrong boolean DEFAULT true NOT NULL
);
ALTER TABLE public.sign_in_try ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.sign_in_try_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.stored_file (
    hash bytea NOT NULL,
    size bigint NOT NULL,
    type text NOT NULL,
    stored_at timestamp with time zone NOT NULL,
    unused_since timestamp with time zone,
    CONSTRAINT stored_file_hash_check CHECK ((length(hash) = 32)),
    CONSTRAINT stored_file_size_check CHECK ((size > 0)),
    CONSTRAINT stored_file_type_check CHECK ((type <> ''::text))
);
CREATE TABLE public.student_group (
    id bigint NOT NULL,
    edition bigint NOT NULL,
    name text NOT NULL,
    removed_at timestamp with time zone,
    version bigint DEFAULT 1 NOT NULL,
    CONSTRAINT student_group_name_check CHECK ((name <> ''::text))
);
ALTER TABLE public.student_group ALTER COLUMN id ADD GENERATED BY DEFAULT AS IDENTITY (
    SEQUENCE NAME public.student_group_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.taught (
    section bigint NOT NULL,
    lesson uuid NOT NULL,
    took integer NOT NULL,
    done boolean NOT NULL,
    left_over integer,
    at timestamp with time zone NOT NULL,
    version bigint DEFAULT 1 NOT NULL,
    CONSTRAINT taught_check CHECK (((NOT done) OR (left_over IS NULL))),
    CONSTRAINT taught_left_over_check CHECK (((left_over >= 0) AND (left_over <= 10000))),
    CONSTRAINT taught_took_check CHECK (((took >= 0) AND (took <= 10000)))
);
CREATE TABLE public.team_note (
    id bigint NOT NULL,
    edition bigint NOT NULL,
    place uuid NOT NULL,
    next_time boolean DEFAULT false NOT NULL,
    text text NOT NULL,
    author bigint NOT NULL,
    written_at timestamp with time zone NOT NULL,
    removed_at timestamp with time zone,
    version bigint DEFAULT 1 NOT NULL,
    CONSTRAINT team_note_text_check CHECK (((text <> ''::text) AND (length(text) <= 2000)))
);
ALTER TABLE public.team_note ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.team_note_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
ALTER TABLE public.term ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.term_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.text_draft (
    item bigint NOT NULL,
    n integer,
    CONSTRAINT text_draft_n_check CHECK ((n > 0))
);
CREATE TABLE public.text_draft_version (
    item bigint NOT NULL,
    n integer NOT NULL,
    author bigint NOT NULL,
    body bytea NOT NULL,
    at timestamp with time zone NOT NULL,
    CONSTRAINT text_draft_version_n_check CHECK ((n > 0))
);
CREATE TABLE public.text_writer (
    item bigint NOT NULL,
    person bigint NOT NULL,
    at timestamp with time zone NOT NULL
);
CREATE TABLE public.unit (
    id bigint NOT NULL,
    edition bigint NOT NULL,
    lineage uuid NOT NULL,
    rank text NOT NULL COLLATE pg_catalog."C",
    title text NOT NULL,
    published boolean DEFAULT false NOT NULL,
    removed_at timestamp with time zone,
    version bigint DEFAULT 1 NOT NULL,
    gate jsonb,
    before text,
    section bigint,
    welcome boolean DEFAULT false NOT NULL,
    CONSTRAINT unit_before_check CHECK ((before = ANY (ARRAY['listed'::text, 'unseen'::text]))),
    CONSTRAINT unit_check CHECK (((NOT welcome) OR (section IS NULL))),
    CONSTRAINT unit_title_check CHECK ((title <> ''::text))
);
ALTER TABLE public.unit ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.unit_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.upload (
    id uuid NOT NULL,
    person bigint NOT NULL,
    name text NOT NULL,
    size bigint NOT NULL,
    received bigint DEFAULT 0 NOT NULL,
    begun_at timestamp with time zone NOT NULL,
    file bytea,
    CONSTRAINT upload_check CHECK (((received >= 0) AND (received <= size))),
    CONSTRAINT upload_name_check CHECK (((name <> ''::text) AND (length(name) <= 200))),
    CONSTRAINT upload_size_check CHECK ((size > 0))
);
CREATE TABLE public.upload_part (
    upload uuid NOT NULL,
    n integer NOT NULL,
    chunk bytea NOT NULL,
    CONSTRAINT upload_part_n_check CHECK ((n >= 0))
);
CREATE TABLE public.work (
    id bigint NOT NULL,
    person bigint NOT NULL,
    item bigint NOT NULL,
    section bigint NOT NULL
);
CREATE TABLE public.work_file (
    id bigint NOT NULL,
    name text NOT NULL,
    file bytea NOT NULL,
    brought_at timestamp with time zone NOT NULL,
    copy_of bigint,
    CONSTRAINT work_file_name_check CHECK (((name <> ''::text) AND (length(name) <= 200)))
);
ALTER TABLE public.work_file ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.work_file_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
ALTER TABLE public.work ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.work_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.work_move (
    batch bigint NOT NULL,
    section bigint NOT NULL,
    edition bigint NOT NULL,
    came_from bigint NOT NULL,
    from_items bigint[] NOT NULL,
    to_items bigint[] NOT NULL,
    back boolean DEFAULT false NOT NULL,
    made_own boolean NOT NULL,
    units bigint[] NOT NULL,
    lessons bigint[] NOT NULL,
    items bigint[] NOT NULL,
    CONSTRAINT work_move_check CHECK ((cardinality(from_items) = cardinality(to_items)))
);
CREATE TABLE public.work_version (
    work bigint NOT NULL,
    n integer NOT NULL,
    text text NOT NULL,
    handed_in_at timestamp with time zone NOT NULL,
    claimed_at timestamp with time zone,
    request uuid NOT NULL,
    taken_back_at timestamp with time zone,
    files bigint[],
    links text[],
    entries jsonb,
    together uuid,
    by bigint,
    judged jsonb,
    CONSTRAINT work_version_claimed_at CHECK (((claimed_at >= '1900-01-01 00:00:00+00'::timestamp with time zone) AND (claimed_at <= '3000-01-01 00:00:00+00'::timestamp with time zone))),
    CONSTRAINT work_version_n_check CHECK ((n >= 1)),
    CONSTRAINT work_version_taken_back_at CHECK (((taken_back_at >= handed_in_at) AND (taken_back_at <= '3000-01-01 00:00:00+00'::timestamp with time zone)))
);
ALTER TABLE ONLY public.adjustment
    ADD CONSTRAINT adjustment_pkey PRIMARY KEY (section, target, field);
ALTER TABLE ONLY public.arrangement
    ADD CONSTRAINT arrangement_pkey PRIMARY KEY (edition, person);
ALTER TABLE ONLY public.audit
    ADD CONSTRAINT audit_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.batch
    ADD CONSTRAINT batch_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.batch
    ADD CONSTRAINT batch_scope_kind_scope_version_key UNIQUE (scope_kind, scope, version);
ALTER TABLE ONLY public.batch
    ADD CONSTRAINT batch_undoes_key UNIQUE (undoes);
ALTER TABLE ONLY public.body_file
    ADD CONSTRAINT body_file_pkey PRIMARY KEY (body, file);
ALTER TABLE ONLY public.body
    ADD CONSTRAINT body_pkey PRIMARY KEY (hash);
ALTER TABLE ONLY public.calendar_day
    ADD CONSTRAINT calendar_day_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.cannot_open
    ADD CONSTRAINT cannot_open_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.change
    ADD CONSTRAINT change_pkey PRIMARY KEY (batch, n);
ALTER TABLE ONLY public.code_use
    ADD CONSTRAINT code_use_code_person_key UNIQUE (code, person);
ALTER TABLE ONLY public.code_use
    ADD CONSTRAINT code_use_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.copy_text
    ADD CONSTRAINT copy_text_pkey PRIMARY KEY (file);
ALTER TABLE ONLY public.draft
    ADD CONSTRAINT draft_pkey PRIMARY KEY (person, item);
ALTER TABLE ONLY public.edition
    ADD CONSTRAINT edition_master_ordinal_key UNIQUE (master, ordinal);
ALTER TABLE ONLY public.edition
    ADD CONSTRAINT edition_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.enrolment
    ADD CONSTRAINT enrolment_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.enrolment
    ADD CONSTRAINT enrolment_section_person_period_excl EXCLUDE USING gist (section WITH =, person WITH =, period WITH &&);
ALTER TABLE ONLY public.exception
    ADD CONSTRAINT exception_pkey PRIMARY KEY (edition, person, item, field, move);
ALTER TABLE ONLY public.fact
    ADD CONSTRAINT fact_person_request_event_key UNIQUE (person, request, event);
ALTER TABLE ONLY public.fact
    ADD CONSTRAINT fact_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.feedback
    ADD CONSTRAINT feedback_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.file_chunk
    ADD CONSTRAINT file_chunk_pkey PRIMARY KEY (hash);
ALTER TABLE ONLY public.file_part
    ADD CONSTRAINT file_part_pkey PRIMARY KEY (file, n);
ALTER TABLE ONLY public.file_text
    ADD CONSTRAINT file_text_pkey PRIMARY KEY (file);
ALTER TABLE ONLY public.home
    ADD CONSTRAINT home_pkey PRIMARY KEY (edition, person);
ALTER TABLE ONLY public.in_group
    ADD CONSTRAINT in_group_pkey PRIMARY KEY (student_group, person);
ALTER TABLE ONLY public.item
    ADD CONSTRAINT item_edition_id_key UNIQUE (edition, id);
ALTER TABLE ONLY public.item
    ADD CONSTRAINT item_edition_lineage_key UNIQUE (edition, lineage);
ALTER TABLE ONLY public.item_file
    ADD CONSTRAINT item_file_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.item
    ADD CONSTRAINT item_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.kept_rubric
    ADD CONSTRAINT kept_rubric_person_rubric_key UNIQUE (person, rubric);
ALTER TABLE ONLY public.kept_rubric
    ADD CONSTRAINT kept_rubric_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.known_address
    ADD CONSTRAINT known_address_pkey PRIMARY KEY (person, address);
ALTER TABLE ONLY public.known_browser
    ADD CONSTRAINT known_browser_pkey PRIMARY KEY (token_hash);
ALTER TABLE ONLY public.lesson
    ADD CONSTRAINT lesson_edition_lineage_key UNIQUE (edition, lineage);
ALTER TABLE ONLY public.lesson
    ADD CONSTRAINT lesson_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.lesson
    ADD CONSTRAINT lesson_unit_id_key UNIQUE (unit, id);
ALTER TABLE ONLY public.link_check
    ADD CONSTRAINT link_check_pkey PRIMARY KEY (address);
ALTER TABLE ONLY public.looked
    ADD CONSTRAINT looked_pkey PRIMARY KEY (person, edition);
ALTER TABLE ONLY public.mail
    ADD CONSTRAINT mail_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.master_member
    ADD CONSTRAINT master_member_pkey PRIMARY KEY (master, person);
ALTER TABLE ONLY public.master
    ADD CONSTRAINT master_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.meeting_change
    ADD CONSTRAINT meeting_change_pkey PRIMARY KEY (section, seq);
ALTER TABLE ONLY public.one_time_link
    ADD CONSTRAINT one_time_link_pkey PRIMARY KEY (token_hash);
ALTER TABLE ONLY public.opened
    ADD CONSTRAINT opened_pkey PRIMARY KEY (section, item);
ALTER TABLE ONLY public.option_queue
    ADD CONSTRAINT option_queue_item_person_option_key UNIQUE (item, person, option);
ALTER TABLE ONLY public.option_queue
    ADD CONSTRAINT option_queue_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.order_change
    ADD CONSTRAINT order_change_pkey PRIMARY KEY (section, seq);
ALTER TABLE ONLY public.outcome_import
    ADD CONSTRAINT outcome_import_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.outcome
    ADD CONSTRAINT outcome_pkey PRIMARY KEY (code);
ALTER TABLE ONLY public.person
    ADD CONSTRAINT person_email_key UNIQUE (email);
ALTER TABLE ONLY public.person_join
    ADD CONSTRAINT person_join_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.person
    ADD CONSTRAINT person_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.private_link
    ADD CONSTRAINT private_link_pkey PRIMARY KEY (token_hash);
ALTER TABLE ONLY public.provider_identity
    ADD CONSTRAINT provider_identity_person_issuer_key UNIQUE (person, issuer);
ALTER TABLE ONLY public.provider_identity
    ADD CONSTRAINT provider_identity_pkey PRIMARY KEY (issuer, subject);
ALTER TABLE ONLY public.provider_trip
    ADD CONSTRAINT provider_trip_pkey PRIMARY KEY (state_hash);
ALTER TABLE ONLY public.quiz_answer
    ADD CONSTRAINT quiz_answer_pkey PRIMARY KEY (attempt, seq);
ALTER TABLE ONLY public.quiz_attempt
    ADD CONSTRAINT quiz_attempt_person_item_n_key UNIQUE (person, item, n);
ALTER TABLE ONLY public.quiz_attempt
    ADD CONSTRAINT quiz_attempt_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.quiz_mark
    ADD CONSTRAINT quiz_mark_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.reader
    ADD CONSTRAINT reader_pkey PRIMARY KEY (item, person);
ALTER TABLE ONLY public.ready_mark
    ADD CONSTRAINT ready_mark_pkey PRIMARY KEY (work, by);
ALTER TABLE ONLY public.request
    ADD CONSTRAINT request_pkey PRIMARY KEY (person, key);
ALTER TABLE ONLY public.roster_fetch
    ADD CONSTRAINT roster_fetch_night_key UNIQUE (night);
ALTER TABLE ONLY public.roster_fetch
    ADD CONSTRAINT roster_fetch_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.roster_import
    ADD CONSTRAINT roster_import_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.roster_key
    ADD CONSTRAINT roster_key_pkey PRIMARY KEY (source, kind, key);
ALTER TABLE ONLY public.section_code
    ADD CONSTRAINT section_code_code_key UNIQUE (code);
ALTER TABLE ONLY public.section_code
    ADD CONSTRAINT section_code_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.section
    ADD CONSTRAINT section_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.section_teacher
    ADD CONSTRAINT section_teacher_pkey PRIMARY KEY (section, person);
ALTER TABLE ONLY public.session
    ADD CONSTRAINT session_pkey PRIMARY KEY (token_hash);
ALTER TABLE ONLY public.setting
    ADD CONSTRAINT setting_pkey PRIMARY KEY (key);
ALTER TABLE ONLY public.sheet_block
    ADD CONSTRAINT sheet_block_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.sheet_block_version
    ADD CONSTRAINT sheet_block_version_pkey PRIMARY KEY (block, n);
ALTER TABLE ONLY public.sheet
    ADD CONSTRAINT sheet_item_section_key UNIQUE (item, section);
ALTER TABLE ONLY public.sheet
    ADD CONSTRAINT sheet_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.sign_in_try
    ADD CONSTRAINT sign_in_try_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.stored_file
    ADD CONSTRAINT stored_file_pkey PRIMARY KEY (hash);
ALTER TABLE ONLY public.student_group
    ADD CONSTRAINT student_group_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.taught
    ADD CONSTRAINT taught_pkey PRIMARY KEY (section, lesson);
ALTER TABLE ONLY public.team_note
    ADD CONSTRAINT team_note_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.term
    ADD CONSTRAINT term_name_key UNIQUE (name);
ALTER TABLE ONLY public.term
    ADD CONSTRAINT term_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.text_draft
    ADD CONSTRAINT text_draft_pkey PRIMARY KEY (item);
ALTER TABLE ONLY public.text_draft_version
    ADD CONSTRAINT text_draft_version_pkey PRIMARY KEY (item, n);
ALTER TABLE ONLY public.text_writer
    ADD CONSTRAINT text_writer_pkey PRIMARY KEY (item, person);
ALTER TABLE ONLY public.unit
    ADD CONSTRAINT unit_edition_id_key UNIQUE (edition, id);
ALTER TABLE ONLY public.unit
    ADD CONSTRAINT unit_edition_lineage_key UNIQUE (edition, lineage);
ALTER TABLE ONLY public.unit
    ADD CONSTRAINT unit_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.upload_part
    ADD CONSTRAINT upload_part_pkey PRIMARY KEY (upload, n);
ALTER TABLE ONLY public.upload
    ADD CONSTRAINT upload_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.work_file
    ADD CONSTRAINT work_file_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.work_move
    ADD CONSTRAINT work_move_pkey PRIMARY KEY (batch);
ALTER TABLE ONLY public.work
    ADD CONSTRAINT work_person_item_key UNIQUE (person, item);
ALTER TABLE ONLY public.work
    ADD CONSTRAINT work_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.work_version
    ADD CONSTRAINT work_version_pkey PRIMARY KEY (work, n);
ALTER TABLE ONLY public.work_version
    ADD CONSTRAINT work_version_work_request_key UNIQUE (work, request);
CREATE INDEX arrangement_person ON public.arrangement USING btree (person);
CREATE INDEX body_file_file ON public.body_file USING btree (file);
CREATE UNIQUE INDEX calendar_day_once ON public.calendar_day USING btree (term, kind, first) WHERE (kind <> 'closure'::text);
CREATE INDEX calendar_day_term ON public.calendar_day USING btree (term);
CREATE INDEX cannot_open_item ON public.cannot_open USING btree (item);
CREATE UNIQUE INDEX cannot_open_once ON public.cannot_open USING btree (person, item) WHERE (settled_at IS NULL);
CREATE INDEX cannot_open_section ON public.cannot_open USING btree (section);
CREATE INDEX change_row ON public.change USING btree (tbl, key);
CREATE INDEX code_use_person_idx ON public.code_use USING btree (person);
CREATE INDEX draft_item ON public.draft USING btree (item);
CREATE UNIQUE INDEX edition_one_coming ON public.edition USING btree (master) WHERE (state = 'draft'::text);
CREATE UNIQUE INDEX edition_one_current ON public.edition USING btree (master) WHERE (state = 'current'::text);
CREATE INDEX enrolment_person ON public.enrolment USING btree (person);
CREATE INDEX exception_person ON public.exception USING btree (person);
CREATE INDEX fact_given ON public.fact USING btree (given) WHERE (given IS NOT NULL);
CREATE INDEX fact_item ON public.fact USING btree (item);
CREATE INDEX fact_person_item ON public.fact USING btree (person, item);
CREATE INDEX fact_section ON public.fact USING btree (section, event);
CREATE INDEX fact_voided_for ON public.fact USING btree (voided_for) WHERE (voided_for IS NOT NULL);
CREATE INDEX feedback_by ON public.feedback USING btree (by, id DESC);
CREATE INDEX feedback_given ON public.feedback USING btree (given) WHERE (given IS NOT NULL);
CREATE INDEX feedback_work ON public.feedback USING btree (work, n);
CREATE INDEX file_part_chunk ON public.file_part USING btree (chunk);
CREATE INDEX home_person ON public.home USING btree (person);
CREATE INDEX in_group_person ON public.in_group USING btree (person);
CREATE INDEX item_edition ON public.item USING btree (edition);
CREATE INDEX item_file_edition ON public.item_file USING btree (edition);
CREATE INDEX item_file_file ON public.item_file USING btree (file);
CREATE INDEX item_file_item ON public.item_file USING btree (item);
CREATE INDEX item_quiz ON public.item USING btree (quiz) WHERE (quiz IS NOT NULL);
CREATE INDEX item_rubric ON public.item USING btree (rubric) WHERE (rubric IS NOT NULL);
CREATE INDEX known_browser_person ON public.known_browser USING btree (person);
CREATE INDEX lesson_edition ON public.lesson USING btree (edition);
CREATE INDEX mail_next_try_idx ON public.mail USING btree (next_try) WHERE ((sent_at IS NULL) AND (given_up_at IS NULL));
CREATE INDEX mail_person_idx ON public.mail USING btree (person);
CREATE INDEX master_member_person ON public.master_member USING btree (person);
CREATE INDEX one_time_link_person ON public.one_time_link USING btree (person);
CREATE INDEX opened_item ON public.opened USING btree (item);
CREATE INDEX option_queue_waiting ON public.option_queue USING btree (item, section) WHERE (came_up_at IS NULL);
CREATE INDEX outcome_import_by ON public.outcome_import USING btree (by);
CREATE UNIQUE INDEX person_join_once ON public.person_join USING btree (other) WHERE (separated_at IS NULL);
CREATE UNIQUE INDEX private_link_in_force ON public.private_link USING btree (person, kind, COALESCE(section, (0)::bigint)) WHERE (withdrawn_at IS NULL);
CREATE INDEX provider_trip_expires_at_idx ON public.provider_trip USING btree (expires_at);
CREATE INDEX quiz_answer_file ON public.quiz_answer USING btree (file) WHERE (file IS NOT NULL);
CREATE INDEX quiz_attempt_item ON public.quiz_attempt USING btree (item);
CREATE INDEX quiz_attempt_joined_from ON public.quiz_attempt USING btree (joined_from) WHERE (joined_from IS NOT NULL);
CREATE INDEX quiz_attempt_paper ON public.quiz_attempt USING btree (paper);
CREATE INDEX quiz_attempt_running ON public.quiz_attempt USING btree (id) WHERE (settled_at IS NULL);
CREATE INDEX quiz_attempt_scored_by ON public.quiz_attempt USING btree (scored_by) WHERE (scored_by IS NOT NULL);
CREATE INDEX quiz_attempt_section ON public.quiz_attempt USING btree (section);
CREATE INDEX quiz_mark_attempt ON public.quiz_mark USING btree (attempt);
CREATE INDEX ready_mark_later ON public.ready_mark USING btree (goes_at) WHERE ((goes_at IS NOT NULL) OR with_all);
CREATE INDEX request_at ON public.request USING btree (at);
CREATE INDEX roster_fetch_term_id_idx ON public.roster_fetch USING btree (term, id);
CREATE INDEX roster_key_about ON public.roster_key USING btree (kind, about);
CREATE INDEX section_code_section_idx ON public.section_code USING btree (section);
CREATE INDEX section_edition ON public.section USING btree (edition);
CREATE INDEX section_teacher_person ON public.section_teacher USING btree (person);
CREATE UNIQUE INDEX section_term_name_key ON public.section USING btree (term, name) WHERE (pretend IS NULL);
CREATE INDEX session_person ON public.session USING btree (person);
CREATE INDEX sheet_block_sheet ON public.sheet_block USING btree (sheet);
CREATE INDEX sheet_block_version_author ON public.sheet_block_version USING btree (author);
CREATE INDEX sign_in_try_account ON public.sign_in_try USING btree (account, at);
CREATE INDEX sign_in_try_address ON public.sign_in_try USING btree (address, at);
CREATE UNIQUE INDEX student_group_name ON public.student_group USING btree (edition, name) WHERE (removed_at IS NULL);
CREATE INDEX team_note_author ON public.team_note USING btree (author);
CREATE INDEX team_note_edition ON public.team_note USING btree (edition);
CREATE INDEX team_note_place ON public.team_note USING btree (place) WHERE (next_time AND (removed_at IS NULL));
CREATE INDEX text_draft_version_author ON public.text_draft_version USING btree (author);
CREATE INDEX text_draft_version_body ON public.text_draft_version USING btree (body);
CREATE INDEX text_writer_person ON public.text_writer USING btree (person);
CREATE INDEX upload_file ON public.upload USING btree (file);
CREATE INDEX upload_part_chunk ON public.upload_part USING btree (chunk);
CREATE INDEX upload_person ON public.upload USING btree (person);
CREATE INDEX work_file_copy_of ON public.work_file USING btree (copy_of);
CREATE INDEX work_file_file ON public.work_file USING btree (file);
CREATE INDEX work_item ON public.work USING btree (item);
CREATE INDEX work_move_section ON public.work_move USING btree (section);
CREATE INDEX work_section ON public.work USING btree (section);
CREATE INDEX work_version_by ON public.work_version USING btree (by) WHERE (by IS NOT NULL);
CREATE INDEX work_version_together ON public.work_version USING btree (together) WHERE (together IS NOT NULL);
CREATE TRIGGER forget_identity AFTER UPDATE OF email ON public.person FOR EACH ROW WHEN ((new.email OPERATOR(public.~~) '%@erased.invalid'::public.citext)) EXECUTE FUNCTION public.forget_identity();
CREATE TRIGGER item_at_rest BEFORE INSERT OR UPDATE ON public.item FOR EACH ROW EXECUTE FUNCTION public.refuse_resting();
CREATE TRIGGER item_file_at_rest BEFORE INSERT OR UPDATE ON public.item_file FOR EACH ROW EXECUTE FUNCTION public.refuse_resting();
CREATE TRIGGER keep_section BEFORE DELETE ON public.section FOR EACH ROW EXECUTE FUNCTION public.keep_section();
CREATE TRIGGER lesson_at_rest BEFORE INSERT OR UPDATE ON public.lesson FOR EACH ROW EXECUTE FUNCTION public.refuse_resting();
CREATE TRIGGER nobody_in_pretend BEFORE INSERT ON public.enrolment FOR EACH ROW EXECUTE FUNCTION public.nobody_in_pretend();
CREATE TRIGGER raise_editions AFTER UPDATE OF title, subject ON public.master FOR EACH ROW EXECUTE FUNCTION public.raise_editions();
CREATE TRIGGER team_note_at_rest BEFORE INSERT OR UPDATE ON public.team_note FOR EACH ROW EXECUTE FUNCTION public.refuse_resting();
CREATE TRIGGER unit_at_rest BEFORE INSERT OR UPDATE ON public.unit FOR EACH ROW EXECUTE FUNCTION public.refuse_resting();
ALTER TABLE ONLY public.adjustment
    ADD CONSTRAINT adjustment_section_fkey FOREIGN KEY (section) REFERENCES public.section(id);
ALTER TABLE ONLY public.arrangement
    ADD CONSTRAINT arrangement_edition_fkey FOREIGN KEY (edition) REFERENCES public.edition(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.arrangement
    ADD CONSTRAINT arrangement_person_fkey FOREIGN KEY (person) REFERENCES public.person(id);
ALTER TABLE ONLY public.audit
    ADD CONSTRAINT audit_who_fkey FOREIGN KEY (who) REFERENCES public.person(id);
ALTER TABLE ONLY public.batch
    ADD CONSTRAINT batch_author_fkey FOREIGN KEY (author) REFERENCES public.person(id);
ALTER TABLE ONLY public.batch
    ADD CONSTRAINT batch_undoes_fkey FOREIGN KEY (undoes) REFERENCES public.batch(id);
ALTER TABLE ONLY public.body_file
    ADD CONSTRAINT body_file_body_fkey FOREIGN KEY (body) REFERENCES public.body(hash);
ALTER TABLE ONLY public.body_file
    ADD CONSTRAINT body_file_file_fkey FOREIGN KEY (file) REFERENCES public.stored_file(hash);
ALTER TABLE ONLY public.calendar_day
    ADD CONSTRAINT calendar_day_term_fkey FOREIGN KEY (term) REFERENCES public.term(id);
ALTER TABLE ONLY public.cannot_open
    ADD CONSTRAINT cannot_open_item_fkey FOREIGN KEY (item) REFERENCES public.item(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.cannot_open
    ADD CONSTRAINT cannot_open_person_fkey FOREIGN KEY (person) REFERENCES public.person(id);
ALTER TABLE ONLY public.cannot_open
    ADD CONSTRAINT cannot_open_section_fkey FOREIGN KEY (section) REFERENCES public.section(id);
ALTER TABLE ONLY public.cannot_open
    ADD CONSTRAINT cannot_open_settled_by_fkey FOREIGN KEY (settled_by) REFERENCES public.person(id);
ALTER TABLE ONLY public.change
    ADD CONSTRAINT change_batch_fkey FOREIGN KEY (batch) REFERENCES public.batch(id);
ALTER TABLE ONLY public.code_use
    ADD CONSTRAINT code_use_answered_by_fkey FOREIGN KEY (answered_by) REFERENCES public.person(id);
ALTER TABLE ONLY public.code_use
    ADD CONSTRAINT code_use_code_fkey FOREIGN KEY (code) REFERENCES public.section_code(id);
ALTER TABLE ONLY public.code_use
    ADD CONSTRAINT code_use_person_fkey FOREIGN KEY (person) REFERENCES public.person(id);
ALTER TABLE ONLY public.copy_text
    ADD CONSTRAINT copy_text_file_fkey FOREIGN KEY (file) REFERENCES public.work_file(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.draft
    ADD CONSTRAINT draft_item_fkey FOREIGN KEY (item) REFERENCES public.item(id);
ALTER TABLE ONLY public.draft
    ADD CONSTRAINT draft_person_fkey FOREIGN KEY (person) REFERENCES public.person(id);
ALTER TABLE ONLY public.edition
    ADD CONSTRAINT edition_carried_from_fkey FOREIGN KEY (carried_from) REFERENCES public.edition(id);
ALTER TABLE ONLY public.edition
    ADD CONSTRAINT edition_master_fkey FOREIGN KEY (master) REFERENCES public.master(id);
ALTER TABLE ONLY public.edition
    ADD CONSTRAINT edition_term_fkey FOREIGN KEY (term) REFERENCES public.term(id);
ALTER TABLE ONLY public.enrolment
    ADD CONSTRAINT enrolment_person_fkey FOREIGN KEY (person) REFERENCES public.person(id);
ALTER TABLE ONLY public.enrolment
    ADD CONSTRAINT enrolment_section_fkey FOREIGN KEY (section) REFERENCES public.section(id);
ALTER TABLE ONLY public.exception
    ADD CONSTRAINT exception_edition_fkey FOREIGN KEY (edition) REFERENCES public.edition(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.exception
    ADD CONSTRAINT exception_person_fkey FOREIGN KEY (person) REFERENCES public.person(id);
ALTER TABLE ONLY public.fact
    ADD CONSTRAINT fact_by_fkey FOREIGN KEY (by) REFERENCES public.person(id);
ALTER TABLE ONLY public.fact
    ADD CONSTRAINT fact_item_fkey FOREIGN KEY (item) REFERENCES public.item(id);
ALTER TABLE ONLY public.fact
    ADD CONSTRAINT fact_person_fkey FOREIGN KEY (person) REFERENCES public.person(id);
ALTER TABLE ONLY public.fact
    ADD CONSTRAINT fact_section_fkey FOREIGN KEY (section) REFERENCES public.section(id);
ALTER TABLE ONLY public.fact
    ADD CONSTRAINT fact_voided_by_fkey FOREIGN KEY (voided_by) REFERENCES public.person(id);
ALTER TABLE ONLY public.feedback
    ADD CONSTRAINT feedback_by_fkey FOREIGN KEY (by) REFERENCES public.person(id);
ALTER TABLE ONLY public.feedback
    ADD CONSTRAINT feedback_taken_back_by_fkey FOREIGN KEY (taken_back_by) REFERENCES public.person(id);
ALTER TABLE ONLY public.feedback
    ADD CONSTRAINT feedback_work_n_fkey FOREIGN KEY (work, n) REFERENCES public.work_version(work, n);
ALTER TABLE ONLY public.file_part
    ADD CONSTRAINT file_part_chunk_fkey FOREIGN KEY (chunk) REFERENCES public.file_chunk(hash);
ALTER TABLE ONLY public.file_part
    ADD CONSTRAINT file_part_file_fkey FOREIGN KEY (file) REFERENCES public.stored_file(hash) ON DELETE CASCADE;
ALTER TABLE ONLY public.file_text
    ADD CONSTRAINT file_text_file_fkey FOREIGN KEY (file) REFERENCES public.stored_file(hash) ON DELETE CASCADE;
ALTER TABLE ONLY public.home
    ADD CONSTRAINT home_edition_fkey FOREIGN KEY (edition) REFERENCES public.edition(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.home
    ADD CONSTRAINT home_person_fkey FOREIGN KEY (person) REFERENCES public.person(id);
ALTER TABLE ONLY public.home
    ADD CONSTRAINT home_section_fkey FOREIGN KEY (section) REFERENCES public.section(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.in_group
    ADD CONSTRAINT in_group_person_fkey FOREIGN KEY (person) REFERENCES public.person(id);
ALTER TABLE ONLY public.in_group
    ADD CONSTRAINT in_group_student_group_fkey FOREIGN KEY (student_group) REFERENCES public.student_group(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.item
    ADD CONSTRAINT item_about_whom_fkey FOREIGN KEY (about_whom) REFERENCES public.person(id);
ALTER TABLE ONLY public.item
    ADD CONSTRAINT item_body_fkey FOREIGN KEY (body) REFERENCES public.body(hash);
ALTER TABLE ONLY public.item
    ADD CONSTRAINT item_edition_fkey FOREIGN KEY (edition) REFERENCES public.edition(id);
ALTER TABLE ONLY public.item
    ADD CONSTRAINT item_edition_unit_fkey FOREIGN KEY (edition, unit) REFERENCES public.unit(edition, id);
ALTER TABLE ONLY public.item_file
    ADD CONSTRAINT item_file_brought_by_fkey FOREIGN KEY (brought_by) REFERENCES public.person(id);
ALTER TABLE ONLY public.item_file
    ADD CONSTRAINT item_file_edition_fkey FOREIGN KEY (edition) REFERENCES public.edition(id);
ALTER TABLE ONLY public.item_file
    ADD CONSTRAINT item_file_edition_item_fkey FOREIGN KEY (edition, item) REFERENCES public.item(edition, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.item_file
    ADD CONSTRAINT item_file_file_fkey FOREIGN KEY (file) REFERENCES public.stored_file(hash);
ALTER TABLE ONLY public.item_file
    ADD CONSTRAINT item_file_replaces_fkey FOREIGN KEY (replaces) REFERENCES public.item_file(id);
ALTER TABLE ONLY public.item_file
    ADD CONSTRAINT item_file_section_fkey FOREIGN KEY (section) REFERENCES public.section(id);
ALTER TABLE ONLY public.item
    ADD CONSTRAINT item_quiz_fkey FOREIGN KEY (quiz) REFERENCES public.body(hash);
ALTER TABLE ONLY public.item
    ADD CONSTRAINT item_rubric_fkey FOREIGN KEY (rubric) REFERENCES public.body(hash);
ALTER TABLE ONLY public.item
    ADD CONSTRAINT item_section_fkey FOREIGN KEY (section) REFERENCES public.section(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.item
    ADD CONSTRAINT item_unit_lesson_fkey FOREIGN KEY (unit, lesson) REFERENCES public.lesson(unit, id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.kept_rubric
    ADD CONSTRAINT kept_rubric_person_fkey FOREIGN KEY (person) REFERENCES public.person(id);
ALTER TABLE ONLY public.kept_rubric
    ADD CONSTRAINT kept_rubric_rubric_fkey FOREIGN KEY (rubric) REFERENCES public.body(hash);
ALTER TABLE ONLY public.known_address
    ADD CONSTRAINT known_address_person_fkey FOREIGN KEY (person) REFERENCES public.person(id);
ALTER TABLE ONLY public.known_browser
    ADD CONSTRAINT known_browser_person_fkey FOREIGN KEY (person) REFERENCES public.person(id);
ALTER TABLE ONLY public.lesson
    ADD CONSTRAINT lesson_edition_fkey FOREIGN KEY (edition) REFERENCES public.edition(id);
ALTER TABLE ONLY public.lesson
    ADD CONSTRAINT lesson_edition_unit_fkey FOREIGN KEY (edition, unit) REFERENCES public.unit(edition, id);
ALTER TABLE ONLY public.lesson
    ADD CONSTRAINT lesson_section_fkey FOREIGN KEY (section) REFERENCES public.section(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.looked
    ADD CONSTRAINT looked_edition_fkey FOREIGN KEY (edition) REFERENCES public.edition(id);
ALTER TABLE ONLY public.looked
    ADD CONSTRAINT looked_person_fkey FOREIGN KEY (person) REFERENCES public.person(id);
ALTER TABLE ONLY public.mail
    ADD CONSTRAINT mail_person_fkey FOREIGN KEY (person) REFERENCES public.person(id);
ALTER TABLE ONLY public.master_member
    ADD CONSTRAINT master_member_master_fkey FOREIGN KEY (master) REFERENCES public.master(id);
ALTER TABLE ONLY public.master_member
    ADD CONSTRAINT master_member_person_fkey FOREIGN KEY (person) REFERENCES public.person(id);
ALTER TABLE ONLY public.meeting_change
    ADD CONSTRAINT meeting_change_section_fkey FOREIGN KEY (section) REFERENCES public.section(id);
ALTER TABLE ONLY public.one_time_link
    ADD CONSTRAINT one_time_link_person_fkey FOREIGN KEY (person) REFERENCES public.person(id);
ALTER TABLE ONLY public.opened
    ADD CONSTRAINT opened_item_fkey FOREIGN KEY (item) REFERENCES public.item(id);
ALTER TABLE ONLY public.opened
    ADD CONSTRAINT opened_section_fkey FOREIGN KEY (section) REFERENCES public.section(id);
ALTER TABLE ONLY public.option_queue
    ADD CONSTRAINT option_queue_item_fkey FOREIGN KEY (item) REFERENCES public.item(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.option_queue
    ADD CONSTRAINT option_queue_person_fkey FOREIGN KEY (person) REFERENCES public.person(id);
ALTER TABLE ONLY public.option_queue
    ADD CONSTRAINT option_queue_section_fkey FOREIGN KEY (section) REFERENCES public.section(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.order_change
    ADD CONSTRAINT order_change_section_fkey FOREIGN KEY (section) REFERENCES public.section(id);
ALTER TABLE ONLY public.outcome_import
    ADD CONSTRAINT outcome_import_by_fkey FOREIGN KEY (by) REFERENCES public.person(id);
ALTER TABLE ONLY public.person_join
    ADD CONSTRAINT person_join_kept_fkey FOREIGN KEY (kept) REFERENCES public.person(id);
ALTER TABLE ONLY public.person_join
    ADD CONSTRAINT person_join_other_fkey FOREIGN KEY (other) REFERENCES public.person(id);
ALTER TABLE ONLY public.person
    ADD CONSTRAINT person_joined_into_fkey FOREIGN KEY (joined_into) REFERENCES public.person(id);
ALTER TABLE ONLY public.private_link
    ADD CONSTRAINT private_link_person_fkey FOREIGN KEY (person) REFERENCES public.person(id);
ALTER TABLE ONLY public.private_link
    ADD CONSTRAINT private_link_section_fkey FOREIGN KEY (section) REFERENCES public.section(id);
ALTER TABLE ONLY public.provider_identity
    ADD CONSTRAINT provider_identity_person_fkey FOREIGN KEY (person) REFERENCES public.person(id);
ALTER TABLE ONLY public.quiz_answer
    ADD CONSTRAINT quiz_answer_attempt_fkey FOREIGN KEY (attempt) REFERENCES public.quiz_attempt(id);
ALTER TABLE ONLY public.quiz_answer
    ADD CONSTRAINT quiz_answer_file_fkey FOREIGN KEY (file) REFERENCES public.work_file(id) ON DELETE SET NULL;
ALTER TABLE ONLY public.quiz_attempt
    ADD CONSTRAINT quiz_attempt_item_fkey FOREIGN KEY (item) REFERENCES public.item(id);
ALTER TABLE ONLY public.quiz_attempt
    ADD CONSTRAINT quiz_attempt_joined_from_fkey FOREIGN KEY (joined_from) REFERENCES public.person(id);
ALTER TABLE ONLY public.quiz_attempt
    ADD CONSTRAINT quiz_attempt_paper_fkey FOREIGN KEY (paper) REFERENCES public.body(hash);
ALTER TABLE ONLY public.quiz_attempt
    ADD CONSTRAINT quiz_attempt_person_fkey FOREIGN KEY (person) REFERENCES public.person(id);
ALTER TABLE ONLY public.quiz_attempt
    ADD CONSTRAINT quiz_attempt_scored_by_fkey FOREIGN KEY (scored_by) REFERENCES public.body(hash);
ALTER TABLE ONLY public.quiz_attempt
    ADD CONSTRAINT quiz_attempt_section_fkey FOREIGN KEY (section) REFERENCES public.section(id);
ALTER TABLE ONLY public.quiz_mark
    ADD CONSTRAINT quiz_mark_attempt_fkey FOREIGN KEY (attempt) REFERENCES public.quiz_attempt(id);
ALTER TABLE ONLY public.quiz_mark
    ADD CONSTRAINT quiz_mark_by_fkey FOREIGN KEY (by) REFERENCES public.person(id);
ALTER TABLE ONLY public.reader
    ADD CONSTRAINT reader_by_fkey FOREIGN KEY (by) REFERENCES public.person(id);
ALTER TABLE ONLY public.reader
    ADD CONSTRAINT reader_item_fkey FOREIGN KEY (item) REFERENCES public.item(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.reader
    ADD CONSTRAINT reader_person_fkey FOREIGN KEY (person) REFERENCES public.person(id);
ALTER TABLE ONLY public.ready_mark
    ADD CONSTRAINT ready_mark_by_fkey FOREIGN KEY (by) REFERENCES public.person(id);
ALTER TABLE ONLY public.ready_mark
    ADD CONSTRAINT ready_mark_work_fkey FOREIGN KEY (work) REFERENCES public.work(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.request
    ADD CONSTRAINT request_person_fkey FOREIGN KEY (person) REFERENCES public.person(id);
ALTER TABLE ONLY public.roster_fetch
    ADD CONSTRAINT roster_fetch_by_fkey FOREIGN KEY (by) REFERENCES public.person(id);
ALTER TABLE ONLY public.roster_fetch
    ADD CONSTRAINT roster_fetch_term_fkey FOREIGN KEY (term) REFERENCES public.term(id);
ALTER TABLE ONLY public.roster_import
    ADD CONSTRAINT roster_import_by_fkey FOREIGN KEY (by) REFERENCES public.person(id);
ALTER TABLE ONLY public.roster_import
    ADD CONSTRAINT roster_import_term_fkey FOREIGN KEY (term) REFERENCES public.term(id);
ALTER TABLE ONLY public.section_code
    ADD CONSTRAINT section_code_made_by_fkey FOREIGN KEY (made_by) REFERENCES public.person(id);
ALTER TABLE ONLY public.section_code
    ADD CONSTRAINT section_code_section_fkey FOREIGN KEY (section) REFERENCES public.section(id);
ALTER TABLE ONLY public.section
    ADD CONSTRAINT section_edition_fkey FOREIGN KEY (edition) REFERENCES public.edition(id);
ALTER TABLE ONLY public.section
    ADD CONSTRAINT section_succeeds_fkey FOREIGN KEY (succeeds) REFERENCES public.section(id);
ALTER TABLE ONLY public.section_teacher
    ADD CONSTRAINT section_teacher_person_fkey FOREIGN KEY (person) REFERENCES public.person(id);
ALTER TABLE ONLY public.section_teacher
    ADD CONSTRAINT section_teacher_section_fkey FOREIGN KEY (section) REFERENCES public.section(id);
ALTER TABLE ONLY public.section
    ADD CONSTRAINT section_term_fkey FOREIGN KEY (term) REFERENCES public.term(id);
ALTER TABLE ONLY public.session
    ADD CONSTRAINT session_person_fkey FOREIGN KEY (person) REFERENCES public.person(id);
ALTER TABLE ONLY public.sheet_block
    ADD CONSTRAINT sheet_block_sheet_fkey FOREIGN KEY (sheet) REFERENCES public.sheet(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.sheet_block_version
    ADD CONSTRAINT sheet_block_version_author_fkey FOREIGN KEY (author) REFERENCES public.person(id);
ALTER TABLE ONLY public.sheet_block_version
    ADD CONSTRAINT sheet_block_version_block_fkey FOREIGN KEY (block) REFERENCES public.sheet_block(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.sheet
    ADD CONSTRAINT sheet_item_fkey FOREIGN KEY (item) REFERENCES public.item(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.sheet
    ADD CONSTRAINT sheet_section_fkey FOREIGN KEY (section) REFERENCES public.section(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.student_group
    ADD CONSTRAINT student_group_edition_fkey FOREIGN KEY (edition) REFERENCES public.edition(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.taught
    ADD CONSTRAINT taught_section_fkey FOREIGN KEY (section) REFERENCES public.section(id);
ALTER TABLE ONLY public.team_note
    ADD CONSTRAINT team_note_author_fkey FOREIGN KEY (author) REFERENCES public.person(id);
ALTER TABLE ONLY public.team_note
    ADD CONSTRAINT team_note_edition_fkey FOREIGN KEY (edition) REFERENCES public.edition(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.text_draft
    ADD CONSTRAINT text_draft_item_fkey FOREIGN KEY (item) REFERENCES public.item(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.text_draft_version
    ADD CONSTRAINT text_draft_version_author_fkey FOREIGN KEY (author) REFERENCES public.person(id);
ALTER TABLE ONLY public.text_draft_version
    ADD CONSTRAINT text_draft_version_body_fkey FOREIGN KEY (body) REFERENCES public.body(hash);
ALTER TABLE ONLY public.text_draft_version
    ADD CONSTRAINT text_draft_version_item_fkey FOREIGN KEY (item) REFERENCES public.text_draft(item) ON DELETE CASCADE;
ALTER TABLE ONLY public.text_writer
    ADD CONSTRAINT text_writer_item_fkey FOREIGN KEY (item) REFERENCES public.item(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.text_writer
    ADD CONSTRAINT text_writer_person_fkey FOREIGN KEY (person) REFERENCES public.person(id);
ALTER TABLE ONLY public.unit
    ADD CONSTRAINT unit_edition_fkey FOREIGN KEY (edition) REFERENCES public.edition(id);
ALTER TABLE ONLY public.unit
    ADD CONSTRAINT unit_section_fkey FOREIGN KEY (section) REFERENCES public.section(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.upload
    ADD CONSTRAINT upload_file_fkey FOREIGN KEY (file) REFERENCES public.stored_file(hash);
ALTER TABLE ONLY public.upload_part
    ADD CONSTRAINT upload_part_chunk_fkey FOREIGN KEY (chunk) REFERENCES public.file_chunk(hash);
ALTER TABLE ONLY public.upload_part
    ADD CONSTRAINT upload_part_upload_fkey FOREIGN KEY (upload) REFERENCES public.upload(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.upload
    ADD CONSTRAINT upload_person_fkey FOREIGN KEY (person) REFERENCES public.person(id);
ALTER TABLE ONLY public.work_file
    ADD CONSTRAINT work_file_copy_of_fkey FOREIGN KEY (copy_of) REFERENCES public.item_file(id) ON DELETE SET NULL;
ALTER TABLE ONLY public.work_file
    ADD CONSTRAINT work_file_file_fkey FOREIGN KEY (file) REFERENCES public.stored_file(hash);
ALTER TABLE ONLY public.work
    ADD CONSTRAINT work_item_fkey FOREIGN KEY (item) REFERENCES public.item(id);
ALTER TABLE ONLY public.work_move
    ADD CONSTRAINT work_move_batch_fkey FOREIGN KEY (batch) REFERENCES public.batch(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.work_move
    ADD CONSTRAINT work_move_came_from_fkey FOREIGN KEY (came_from) REFERENCES public.edition(id);
ALTER TABLE ONLY public.work_move
    ADD CONSTRAINT work_move_edition_fkey FOREIGN KEY (edition) REFERENCES public.edition(id);
ALTER TABLE ONLY public.work_move
    ADD CONSTRAINT work_move_section_fkey FOREIGN KEY (section) REFERENCES public.section(id);
ALTER TABLE ONLY public.work
    ADD CONSTRAINT work_person_fkey FOREIGN KEY (person) REFERENCES public.person(id);
ALTER TABLE ONLY public.work
    ADD CONSTRAINT work_section_fkey FOREIGN KEY (section) REFERENCES public.section(id);
ALTER TABLE ONLY public.work_version
    ADD CONSTRAINT work_version_by_fkey FOREIGN KEY (by) REFERENCES public.person(id);
ALTER TABLE ONLY public.work_version
    ADD CONSTRAINT work_version_work_fkey FOREIGN KEY (work) REFERENCES public.work(id);
GRANT SELECT,INSERT ON TABLE public.term TO polycline_app;
GRANT UPDATE(first) ON TABLE public.term TO polycline_app;
GRANT UPDATE(last) ON TABLE public.term TO polycline_app;
GRANT UPDATE(settings) ON TABLE public.term TO polycline_app;
GRANT UPDATE(version) ON TABLE public.term TO polycline_app;
GRANT UPDATE(own_version) ON TABLE public.term TO polycline_app;
REVOKE ALL ON FUNCTION public.erase_files(which bigint) FROM PUBLIC;
GRANT ALL ON FUNCTION public.erase_files(which bigint) TO polycline_app;
REVOKE ALL ON FUNCTION public.erase_person(which bigint, at timestamp with time zone) FROM PUBLIC;
GRANT ALL ON FUNCTION public.erase_person(which bigint, at timestamp with time zone) TO polycline_app;
REVOKE ALL ON FUNCTION public.erase_quizzes(which bigint) FROM PUBLIC;
GRANT ALL ON FUNCTION public.erase_quizzes(which bigint) TO polycline_app;
REVOKE ALL ON FUNCTION public.erase_sheets(which bigint) FROM PUBLIC;
GRANT ALL ON FUNCTION public.erase_sheets(which bigint) TO polycline_app;
REVOKE ALL ON FUNCTION public.forget_joins(which bigint, at timestamp with time zone) FROM PUBLIC;
GRANT ALL ON FUNCTION public.forget_joins(which bigint, at timestamp with time zone) TO polycline_app;
REVOKE ALL ON FUNCTION public.forget_text_drafts(which_item bigint, before_n integer) FROM PUBLIC;
GRANT ALL ON FUNCTION public.forget_text_drafts(which_item bigint, before_n integer) TO polycline_app;
REVOKE ALL ON FUNCTION public.join_people(kept bigint, other bigint, at timestamp with time zone) FROM PUBLIC;
GRANT ALL ON FUNCTION public.join_people(kept bigint, other bigint, at timestamp with time zone) TO polycline_app;
REVOKE ALL ON FUNCTION public.join_quizzes(kept bigint, other bigint) FROM PUBLIC;
GRANT ALL ON FUNCTION public.join_quizzes(kept bigint, other bigint) TO polycline_app;
REVOKE ALL ON FUNCTION public.move_demo_clock(seconds bigint) FROM PUBLIC;
GRANT ALL ON FUNCTION public.move_demo_clock(seconds bigint) TO polycline_app;
REVOKE ALL ON FUNCTION public.move_work(which_section bigint, from_items bigint[], to_items bigint[]) FROM PUBLIC;
GRANT ALL ON FUNCTION public.move_work(which_section bigint, from_items bigint[], to_items bigint[]) TO polycline_app;
REVOKE ALL ON FUNCTION public.remove_section(which bigint) FROM PUBLIC;
GRANT ALL ON FUNCTION public.remove_section(which bigint) TO polycline_app;
REVOKE ALL ON FUNCTION public.remove_term(which bigint) FROM PUBLIC;
GRANT ALL ON FUNCTION public.remove_term(which bigint) TO polycline_app;
REVOKE ALL ON FUNCTION public.renamed_places(here bigint, there bigint, among jsonb) FROM PUBLIC;
REVOKE ALL ON FUNCTION public.renamed_rows(which text, keyed text[], here bigint, there bigint, among jsonb) FROM PUBLIC;
REVOKE ALL ON FUNCTION public.resume_edition(which bigint) FROM PUBLIC;
GRANT ALL ON FUNCTION public.resume_edition(which bigint) TO polycline_app;
REVOKE ALL ON FUNCTION public.separate_people(which bigint, at timestamp with time zone) FROM PUBLIC;
GRANT ALL ON FUNCTION public.separate_people(which bigint, at timestamp with time zone) TO polycline_app;
REVOKE ALL ON FUNCTION public.separate_quizzes(kept bigint, other bigint) FROM PUBLIC;
GRANT ALL ON FUNCTION public.separate_quizzes(kept bigint, other bigint) TO polycline_app;
REVOKE ALL ON FUNCTION public.sweep_files(at timestamp with time zone) FROM PUBLIC;
GRANT ALL ON FUNCTION public.sweep_files(at timestamp with time zone) TO polycline_app;
REVOKE ALL ON FUNCTION public.take_back_course(which bigint) FROM PUBLIC;
GRANT ALL ON FUNCTION public.take_back_course(which bigint) TO polycline_app;
REVOKE ALL ON FUNCTION public.take_back_edition(which bigint) FROM PUBLIC;
GRANT ALL ON FUNCTION public.take_back_edition(which bigint) TO polycline_app;
REVOKE ALL ON FUNCTION public.take_back_scores(reason uuid, where_given bigint, taker bigint, moment timestamp with time zone) FROM PUBLIC;
GRANT ALL ON FUNCTION public.take_back_scores(reason uuid, where_given bigint, taker bigint, moment timestamp with time zone) TO polycline_app;
GRANT ALL ON FUNCTION public.undo_depth(of_batch bigint) TO polycline_app;
REVOKE ALL ON FUNCTION public.void_earlier_scores(which bigint, what bigint, voider bigint, moment timestamp with time zone, reason uuid) FROM PUBLIC;
GRANT ALL ON FUNCTION public.void_earlier_scores(which bigint, what bigint, voider bigint, moment timestamp with time zone, reason uuid) TO polycline_app;
GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.adjustment TO polycline_app;
GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.arrangement TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.audit TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.batch TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.body TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.body_file TO polycline_app;
GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.calendar_day TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.cannot_open TO polycline_app;
GRANT UPDATE(section) ON TABLE public.cannot_open TO polycline_app;
GRANT UPDATE(note) ON TABLE public.cannot_open TO polycline_app;
GRANT UPDATE(said_at) ON TABLE public.cannot_open TO polycline_app;
GRANT UPDATE(was_open) ON TABLE public.cannot_open TO polycline_app;
GRANT UPDATE(settled_at) ON TABLE public.cannot_open TO polycline_app;
GRANT UPDATE(settled_by) ON TABLE public.cannot_open TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.change TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.code_use TO polycline_app;
GRANT UPDATE(at) ON TABLE public.code_use TO polycline_app;
GRANT UPDATE(state) ON TABLE public.code_use TO polycline_app;
GRANT UPDATE(answered_by) ON TABLE public.code_use TO polycline_app;
GRANT UPDATE(answered_at) ON TABLE public.code_use TO polycline_app;
GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.copy_text TO polycline_app;
GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.draft TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.edition TO polycline_app;
GRANT UPDATE(codes) ON TABLE public.edition TO polycline_app;
GRANT UPDATE(before) ON TABLE public.edition TO polycline_app;
GRANT UPDATE(state) ON TABLE public.edition TO polycline_app;
GRANT UPDATE(version) ON TABLE public.edition TO polycline_app;
GRANT UPDATE(own_version) ON TABLE public.edition TO polycline_app;
GRANT UPDATE(codes_fixed_at) ON TABLE public.edition TO polycline_app;
GRANT UPDATE(levels) ON TABLE public.edition TO polycline_app;
GRANT UPDATE(ends_on) ON TABLE public.edition TO polycline_app;
GRANT UPDATE(adding_up) ON TABLE public.edition TO polycline_app;
GRANT SELECT,INSERT,DELETE ON TABLE public.enrolment TO polycline_app;
GRANT UPDATE(period) ON TABLE public.enrolment TO polycline_app;
GRANT UPDATE(version) ON TABLE public.enrolment TO polycline_app;
GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.exception TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.fact TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.feedback TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.file_chunk TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.file_part TO polycline_app;
GRANT SELECT,INSERT,UPDATE ON TABLE public.file_text TO polycline_app;
GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.home TO polycline_app;
GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.in_group TO polycline_app;
GRANT SELECT,INSERT,UPDATE ON TABLE public.item TO polycline_app;
GRANT SELECT,INSERT,UPDATE ON TABLE public.item_file TO polycline_app;
GRANT SELECT,INSERT,DELETE ON TABLE public.kept_rubric TO polycline_app;
GRANT SELECT,INSERT,UPDATE ON TABLE public.known_address TO polycline_app;
GRANT SELECT,INSERT,UPDATE ON TABLE public.known_browser TO polycline_app;
GRANT SELECT,INSERT,UPDATE ON TABLE public.lesson TO polycline_app;
GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.link_check TO polycline_app;
GRANT SELECT,INSERT,UPDATE ON TABLE public.looked TO polycline_app;
GRANT SELECT,INSERT,DELETE ON TABLE public.mail TO polycline_app;
GRANT UPDATE(body) ON TABLE public.mail TO polycline_app;
GRANT UPDATE(next_try) ON TABLE public.mail TO polycline_app;
GRANT UPDATE(tries) ON TABLE public.mail TO polycline_app;
GRANT UPDATE(sent_at) ON TABLE public.mail TO polycline_app;
GRANT UPDATE(given_up_at) ON TABLE public.mail TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.master TO polycline_app;
GRANT UPDATE(title) ON TABLE public.master TO polycline_app;
GRANT UPDATE(subject) ON TABLE public.master TO polycline_app;
GRANT UPDATE(version) ON TABLE public.master TO polycline_app;
GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.master_member TO polycline_app;
GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.meeting_change TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.one_time_link TO polycline_app;
GRANT UPDATE(used_at) ON TABLE public.one_time_link TO polycline_app;
GRANT SELECT,INSERT,DELETE ON TABLE public.opened TO polycline_app;
GRANT SELECT,INSERT,DELETE ON TABLE public.option_queue TO polycline_app;
GRANT UPDATE(came_up_at) ON TABLE public.option_queue TO polycline_app;
GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.order_change TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.outcome TO polycline_app;
GRANT UPDATE(words) ON TABLE public.outcome TO polycline_app;
GRANT UPDATE(subject) ON TABLE public.outcome TO polycline_app;
GRANT UPDATE(rank) ON TABLE public.outcome TO polycline_app;
GRANT UPDATE(removed_at) ON TABLE public.outcome TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.outcome_import TO polycline_app;
GRANT UPDATE(undone_at) ON TABLE public.outcome_import TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.person TO polycline_app;
GRANT UPDATE(name) ON TABLE public.person TO polycline_app;
GRANT UPDATE(email) ON TABLE public.person TO polycline_app;
GRANT UPDATE(password_hash) ON TABLE public.person TO polycline_app;
GRANT UPDATE(office) ON TABLE public.person TO polycline_app;
GRANT UPDATE(removed_at) ON TABLE public.person TO polycline_app;
GRANT UPDATE(teacher) ON TABLE public.person TO polycline_app;
GRANT SELECT ON TABLE public.person_join TO polycline_app;
GRANT SELECT,INSERT,DELETE ON TABLE public.section TO polycline_app;
GRANT UPDATE(name) ON TABLE public.section TO polycline_app;
GRANT UPDATE(edition) ON TABLE public.section TO polycline_app;
GRANT UPDATE(version) ON TABLE public.section TO polycline_app;
GRANT UPDATE(slots) ON TABLE public.section TO polycline_app;
GRANT UPDATE(follows_from) ON TABLE public.section TO polycline_app;
GRANT UPDATE(subject) ON TABLE public.section TO polycline_app;
GRANT UPDATE(year) ON TABLE public.section TO polycline_app;
GRANT UPDATE(ended_on) ON TABLE public.section TO polycline_app;
GRANT UPDATE(pretend) ON TABLE public.section TO polycline_app;
GRANT SELECT ON TABLE public.place TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.private_link TO polycline_app;
GRANT UPDATE(withdrawn_at) ON TABLE public.private_link TO polycline_app;
GRANT SELECT,INSERT,DELETE ON TABLE public.provider_identity TO polycline_app;
GRANT SELECT,INSERT,DELETE ON TABLE public.provider_trip TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.quiz_answer TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.quiz_attempt TO polycline_app;
GRANT UPDATE(ended_at) ON TABLE public.quiz_attempt TO polycline_app;
GRANT UPDATE(settled_at) ON TABLE public.quiz_attempt TO polycline_app;
GRANT UPDATE(scored_by) ON TABLE public.quiz_attempt TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.quiz_mark TO polycline_app;
GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.reader TO polycline_app;
GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.ready_mark TO polycline_app;
GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.request TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.roster_fetch TO polycline_app;
GRANT UPDATE(state) ON TABLE public.roster_fetch TO polycline_app;
GRANT UPDATE(sentence) ON TABLE public.roster_fetch TO polycline_app;
GRANT UPDATE(content) ON TABLE public.roster_fetch TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.roster_import TO polycline_app;
GRANT UPDATE(taken_back_at) ON TABLE public.roster_import TO polycline_app;
GRANT SELECT,INSERT,DELETE ON TABLE public.roster_key TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.section_code TO polycline_app;
GRANT UPDATE(withdrawn_at) ON TABLE public.section_code TO polycline_app;
GRANT SELECT,INSERT,DELETE ON TABLE public.section_teacher TO polycline_app;
GRANT SELECT,INSERT,DELETE ON TABLE public.session TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.setting TO polycline_app;
GRANT UPDATE(value) ON TABLE public.setting TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.sheet TO polycline_app;
GRANT UPDATE(begun_at) ON TABLE public.sheet TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.sheet_block TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.sheet_block_version TO polycline_app;
GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.sign_in_try TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.stored_file TO polycline_app;
GRANT SELECT,INSERT,UPDATE ON TABLE public.student_group TO polycline_app;
GRANT USAGE ON SEQUENCE public.student_group_id_seq TO polycline_app;
GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.taught TO polycline_app;
GRANT SELECT,INSERT,UPDATE ON TABLE public.team_note TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.text_draft TO polycline_app;
GRANT UPDATE(n) ON TABLE public.text_draft TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.text_draft_version TO polycline_app;
GRANT SELECT,INSERT,DELETE ON TABLE public.text_writer TO polycline_app;
GRANT UPDATE(at) ON TABLE public.text_writer TO polycline_app;
GRANT SELECT,INSERT,UPDATE ON TABLE public.unit TO polycline_app;
GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.upload TO polycline_app;
GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.upload_part TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.work TO polycline_app;
GRANT UPDATE(section) ON TABLE public.work TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.work_file TO polycline_app;
GRANT UPDATE(file) ON TABLE public.work_file TO polycline_app;
GRANT UPDATE(copy_of) ON TABLE public.work_file TO polycline_app;
GRANT USAGE ON SEQUENCE public.work_file_id_seq TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.work_move TO polycline_app;
GRANT UPDATE(back) ON TABLE public.work_move TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.work_version TO polycline_app;
GRANT UPDATE(taken_back_at) ON TABLE public.work_version TO polycline_app;
