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
  UPDATE draft d SET item = m.there FROM unnest(from_items, to_items) m (here, there)
  WHERE d.item = m.here AND EXISTS (SELECT 1 FROM enrolment n WHERE n.person = d.person AND n.section = which_section)
    AND NOT EXISTS (SELECT 1 FROM draft other WHERE other.person = d.person AND other.item = m.there);
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
  IF EXISTS (SELECT 1 FROM section WHERE term = which) OR EXISTS (SELECT 1 FROM edition WHERE term = which) THEN
    RAISE EXCEPTION 'something stands in term %', which USING ERRCODE = 'PC003';
  END IF;
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
  IF EXISTS (SELECT 1 FROM section WHERE edition = which) OR EXISTS (SELECT 1 FROM edition WHERE master = held AND id <> which)
     OR EXISTS (SELECT 1 FROM item i WHERE i.edition = which AND (EXISTS (SELECT 1 FROM fact f WHERE f.item = i.id) OR EXISTS (SELECT 1 FROM work w WHERE w.item = i.id))) THEN
    RAISE EXCEPTION 'something came of edition %', which USING ERRCODE = 'PC003';
  END IF;
  DELETE FROM change WHERE batch IN (SELECT id FROM batch WHERE scope_kind = 'edition' AND scope = which);
  DELETE FROM batch WHERE scope_kind = 'edition' AND scope = which;
  DELETE FROM looked WHERE edition = which;
  DELETE FROM item WHERE edition = which;
  DELETE FROM lesson WHERE edition = which;
  DELETE FROM unit WHERE edition = which;
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
    CONSTRAINT body_kind_check CHECK ((kind = 'text'::text))
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
CREATE TABLE public.change (
    batch bigint NOT NULL,
    n integer NOT NULL,
    tbl text NOT NULL,
    key jsonb NOT NULL,
    before jsonb,
    after jsonb,
    CONSTRAINT change_check CHECK (((before IS NOT NULL) OR (after IS NOT NULL)))
);
CREATE TABLE public.draft (
    person bigint NOT NULL,
    item bigint NOT NULL,
    text text NOT NULL,
    saved_at timestamp with time zone NOT NULL,
    missed_at timestamp with time zone,
    claimed_at timestamp with time zone,
    version bigint DEFAULT 1 NOT NULL,
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
    n integer NOT NULL,
    by bigint NOT NULL,
    text text NOT NULL,
    again boolean NOT NULL,
    returned_at timestamp with time zone NOT NULL
);
ALTER TABLE public.feedback ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.feedback_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
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
    CONSTRAINT item_before_check CHECK ((before = ANY (ARRAY['listed'::text, 'unseen'::text]))),
    CONSTRAINT item_code_check CHECK ((code <> ''::text)),
    CONSTRAINT item_kind_check CHECK ((kind = ANY (ARRAY['page'::text, 'link'::text, 'handout'::text, 'task'::text, 'quiz'::text, 'choice'::text, 'discussion'::text]))),
    CONSTRAINT item_picks_check CHECK ((picks >= 1)),
    CONSTRAINT item_purpose_check CHECK ((purpose = ANY (ARRAY['to-read'::text, 'practice'::text, 'for-marks'::text]))),
    CONSTRAINT item_title_check CHECK (((title <> ''::text) AND (length(title) <= 200)))
);
ALTER TABLE public.item ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.item_id_seq
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
CREATE TABLE public.looked (
    person bigint NOT NULL,
    edition bigint NOT NULL,
    batch bigint NOT NULL,
    at timestamp with time zone NOT NULL
);
CREATE TABLE public.master (
    id bigint NOT NULL,
    title text NOT NULL,
    words jsonb DEFAULT '{}'::jsonb NOT NULL,
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
CREATE TABLE public.order_change (
    section bigint NOT NULL,
    seq integer NOT NULL,
    target uuid NOT NULL,
    change jsonb NOT NULL,
    version bigint DEFAULT 1 NOT NULL,
    CONSTRAINT order_change_seq_check CHECK ((seq >= 1))
);
CREATE TABLE public.person (
    id bigint NOT NULL,
    name text NOT NULL,
    email public.citext NOT NULL,
    password_hash text NOT NULL,
    office boolean DEFAULT false NOT NULL,
    removed_at timestamp with time zone,
    teacher boolean DEFAULT false NOT NULL,
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
CREATE TABLE public.request (
    person bigint NOT NULL,
    key uuid NOT NULL,
    asked bytea NOT NULL,
    status integer,
    answer jsonb,
    at timestamp with time zone NOT NULL
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
    CONSTRAINT section_letter_check CHECK ((letter ~ '^[A-Z]$'::text)),
    CONSTRAINT section_name_check CHECK ((name <> ''::text)),
    CONSTRAINT section_subject_check CHECK ((length(subject) <= 120)),
    CONSTRAINT section_year_check CHECK ((length(year) <= 40))
);
ALTER TABLE public.section ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
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
ALTER TABLE public.term ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.term_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
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
    CONSTRAINT unit_before_check CHECK ((before = ANY (ARRAY['listed'::text, 'unseen'::text]))),
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
CREATE TABLE public.work (
    id bigint NOT NULL,
    person bigint NOT NULL,
    item bigint NOT NULL,
    section bigint NOT NULL
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
ALTER TABLE ONLY public.body
    ADD CONSTRAINT body_pkey PRIMARY KEY (hash);
ALTER TABLE ONLY public.calendar_day
    ADD CONSTRAINT calendar_day_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.change
    ADD CONSTRAINT change_pkey PRIMARY KEY (batch, n);
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
    ADD CONSTRAINT fact_person_request_key UNIQUE (person, request);
ALTER TABLE ONLY public.fact
    ADD CONSTRAINT fact_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.feedback
    ADD CONSTRAINT feedback_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.home
    ADD CONSTRAINT home_pkey PRIMARY KEY (edition, person);
ALTER TABLE ONLY public.in_group
    ADD CONSTRAINT in_group_pkey PRIMARY KEY (student_group, person);
ALTER TABLE ONLY public.item
    ADD CONSTRAINT item_edition_lineage_key UNIQUE (edition, lineage);
ALTER TABLE ONLY public.item
    ADD CONSTRAINT item_pkey PRIMARY KEY (id);
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
ALTER TABLE ONLY public.looked
    ADD CONSTRAINT looked_pkey PRIMARY KEY (person, edition);
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
ALTER TABLE ONLY public.order_change
    ADD CONSTRAINT order_change_pkey PRIMARY KEY (section, seq);
ALTER TABLE ONLY public.person
    ADD CONSTRAINT person_email_key UNIQUE (email);
ALTER TABLE ONLY public.person
    ADD CONSTRAINT person_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.private_link
    ADD CONSTRAINT private_link_pkey PRIMARY KEY (token_hash);
ALTER TABLE ONLY public.request
    ADD CONSTRAINT request_pkey PRIMARY KEY (person, key);
ALTER TABLE ONLY public.roster_import
    ADD CONSTRAINT roster_import_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.roster_key
    ADD CONSTRAINT roster_key_pkey PRIMARY KEY (source, kind, key);
ALTER TABLE ONLY public.section
    ADD CONSTRAINT section_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.section_teacher
    ADD CONSTRAINT section_teacher_pkey PRIMARY KEY (section, person);
ALTER TABLE ONLY public.section
    ADD CONSTRAINT section_term_name_key UNIQUE (term, name);
ALTER TABLE ONLY public.session
    ADD CONSTRAINT session_pkey PRIMARY KEY (token_hash);
ALTER TABLE ONLY public.setting
    ADD CONSTRAINT setting_pkey PRIMARY KEY (key);
ALTER TABLE ONLY public.sign_in_try
    ADD CONSTRAINT sign_in_try_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.student_group
    ADD CONSTRAINT student_group_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.taught
    ADD CONSTRAINT taught_pkey PRIMARY KEY (section, lesson);
ALTER TABLE ONLY public.term
    ADD CONSTRAINT term_name_key UNIQUE (name);
ALTER TABLE ONLY public.term
    ADD CONSTRAINT term_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.unit
    ADD CONSTRAINT unit_edition_id_key UNIQUE (edition, id);
ALTER TABLE ONLY public.unit
    ADD CONSTRAINT unit_edition_lineage_key UNIQUE (edition, lineage);
ALTER TABLE ONLY public.unit
    ADD CONSTRAINT unit_pkey PRIMARY KEY (id);
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
CREATE UNIQUE INDEX calendar_day_once ON public.calendar_day USING btree (term, kind, first) WHERE (kind <> 'closure'::text);
CREATE INDEX calendar_day_term ON public.calendar_day USING btree (term);
CREATE INDEX change_row ON public.change USING btree (tbl, key);
CREATE UNIQUE INDEX edition_one_coming ON public.edition USING btree (master) WHERE (state = 'draft'::text);
CREATE UNIQUE INDEX edition_one_current ON public.edition USING btree (master) WHERE (state = 'current'::text);
CREATE INDEX enrolment_person ON public.enrolment USING btree (person);
CREATE INDEX exception_person ON public.exception USING btree (person);
CREATE INDEX fact_item ON public.fact USING btree (item);
CREATE INDEX fact_person_item ON public.fact USING btree (person, item);
CREATE INDEX fact_section ON public.fact USING btree (section, event);
CREATE INDEX feedback_work ON public.feedback USING btree (work, n);
CREATE INDEX home_person ON public.home USING btree (person);
CREATE INDEX in_group_person ON public.in_group USING btree (person);
CREATE INDEX item_edition ON public.item USING btree (edition);
CREATE INDEX known_browser_person ON public.known_browser USING btree (person);
CREATE INDEX lesson_edition ON public.lesson USING btree (edition);
CREATE INDEX master_member_person ON public.master_member USING btree (person);
CREATE INDEX one_time_link_person ON public.one_time_link USING btree (person);
CREATE INDEX opened_item ON public.opened USING btree (item);
CREATE UNIQUE INDEX private_link_in_force ON public.private_link USING btree (person, kind, COALESCE(section, (0)::bigint)) WHERE (withdrawn_at IS NULL);
CREATE INDEX request_at ON public.request USING btree (at);
CREATE INDEX roster_key_about ON public.roster_key USING btree (kind, about);
CREATE INDEX section_edition ON public.section USING btree (edition);
CREATE INDEX section_teacher_person ON public.section_teacher USING btree (person);
CREATE INDEX session_person ON public.session USING btree (person);
CREATE INDEX sign_in_try_account ON public.sign_in_try USING btree (account, at);
CREATE INDEX sign_in_try_address ON public.sign_in_try USING btree (address, at);
CREATE UNIQUE INDEX student_group_name ON public.student_group USING btree (edition, name) WHERE (removed_at IS NULL);
CREATE INDEX work_move_section ON public.work_move USING btree (section);
CREATE INDEX work_section ON public.work USING btree (section);
CREATE TRIGGER item_at_rest BEFORE INSERT OR UPDATE ON public.item FOR EACH ROW EXECUTE FUNCTION public.refuse_resting();
CREATE TRIGGER lesson_at_rest BEFORE INSERT OR UPDATE ON public.lesson FOR EACH ROW EXECUTE FUNCTION public.refuse_resting();
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
ALTER TABLE ONLY public.calendar_day
    ADD CONSTRAINT calendar_day_term_fkey FOREIGN KEY (term) REFERENCES public.term(id);
ALTER TABLE ONLY public.change
    ADD CONSTRAINT change_batch_fkey FOREIGN KEY (batch) REFERENCES public.batch(id);
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
    ADD CONSTRAINT feedback_work_n_fkey FOREIGN KEY (work, n) REFERENCES public.work_version(work, n);
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
    ADD CONSTRAINT item_body_fkey FOREIGN KEY (body) REFERENCES public.body(hash);
ALTER TABLE ONLY public.item
    ADD CONSTRAINT item_edition_fkey FOREIGN KEY (edition) REFERENCES public.edition(id);
ALTER TABLE ONLY public.item
    ADD CONSTRAINT item_edition_unit_fkey FOREIGN KEY (edition, unit) REFERENCES public.unit(edition, id);
ALTER TABLE ONLY public.item
    ADD CONSTRAINT item_section_fkey FOREIGN KEY (section) REFERENCES public.section(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE ONLY public.item
    ADD CONSTRAINT item_unit_lesson_fkey FOREIGN KEY (unit, lesson) REFERENCES public.lesson(unit, id) DEFERRABLE INITIALLY DEFERRED;
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
ALTER TABLE ONLY public.order_change
    ADD CONSTRAINT order_change_section_fkey FOREIGN KEY (section) REFERENCES public.section(id);
ALTER TABLE ONLY public.private_link
    ADD CONSTRAINT private_link_person_fkey FOREIGN KEY (person) REFERENCES public.person(id);
ALTER TABLE ONLY public.private_link
    ADD CONSTRAINT private_link_section_fkey FOREIGN KEY (section) REFERENCES public.section(id);
ALTER TABLE ONLY public.request
    ADD CONSTRAINT request_person_fkey FOREIGN KEY (person) REFERENCES public.person(id);
ALTER TABLE ONLY public.roster_import
    ADD CONSTRAINT roster_import_by_fkey FOREIGN KEY (by) REFERENCES public.person(id);
ALTER TABLE ONLY public.roster_import
    ADD CONSTRAINT roster_import_term_fkey FOREIGN KEY (term) REFERENCES public.term(id);
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
ALTER TABLE ONLY public.student_group
    ADD CONSTRAINT student_group_edition_fkey FOREIGN KEY (edition) REFERENCES public.edition(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.taught
    ADD CONSTRAINT taught_section_fkey FOREIGN KEY (section) REFERENCES public.section(id);
ALTER TABLE ONLY public.unit
    ADD CONSTRAINT unit_edition_fkey FOREIGN KEY (edition) REFERENCES public.edition(id);
ALTER TABLE ONLY public.unit
    ADD CONSTRAINT unit_section_fkey FOREIGN KEY (section) REFERENCES public.section(id) DEFERRABLE INITIALLY DEFERRED;
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
    ADD CONSTRAINT work_version_work_fkey FOREIGN KEY (work) REFERENCES public.work(id);
GRANT SELECT,INSERT ON TABLE public.term TO polycline_app;
GRANT UPDATE(first) ON TABLE public.term TO polycline_app;
GRANT UPDATE(last) ON TABLE public.term TO polycline_app;
GRANT UPDATE(settings) ON TABLE public.term TO polycline_app;
GRANT UPDATE(version) ON TABLE public.term TO polycline_app;
GRANT UPDATE(own_version) ON TABLE public.term TO polycline_app;
REVOKE ALL ON FUNCTION public.move_demo_clock(seconds bigint) FROM PUBLIC;
GRANT ALL ON FUNCTION public.move_demo_clock(seconds bigint) TO polycline_app;
REVOKE ALL ON FUNCTION public.move_work(which_section bigint, from_items bigint[], to_items bigint[]) FROM PUBLIC;
GRANT ALL ON FUNCTION public.move_work(which_section bigint, from_items bigint[], to_items bigint[]) TO polycline_app;
REVOKE ALL ON FUNCTION public.remove_section(which bigint) FROM PUBLIC;
GRANT ALL ON FUNCTION public.remove_section(which bigint) TO polycline_app;
REVOKE ALL ON FUNCTION public.remove_term(which bigint) FROM PUBLIC;
GRANT ALL ON FUNCTION public.remove_term(which bigint) TO polycline_app;
REVOKE ALL ON FUNCTION public.resume_edition(which bigint) FROM PUBLIC;
GRANT ALL ON FUNCTION public.resume_edition(which bigint) TO polycline_app;
REVOKE ALL ON FUNCTION public.take_back_course(which bigint) FROM PUBLIC;
GRANT ALL ON FUNCTION public.take_back_course(which bigint) TO polycline_app;
REVOKE ALL ON FUNCTION public.take_back_edition(which bigint) FROM PUBLIC;
GRANT ALL ON FUNCTION public.take_back_edition(which bigint) TO polycline_app;
GRANT ALL ON FUNCTION public.undo_depth(of_batch bigint) TO polycline_app;
GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.adjustment TO polycline_app;
GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.arrangement TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.audit TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.batch TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.body TO polycline_app;
GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.calendar_day TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.change TO polycline_app;
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
GRANT SELECT,INSERT,DELETE ON TABLE public.enrolment TO polycline_app;
GRANT UPDATE(period) ON TABLE public.enrolment TO polycline_app;
GRANT UPDATE(version) ON TABLE public.enrolment TO polycline_app;
GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.exception TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.fact TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.feedback TO polycline_app;
GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.home TO polycline_app;
GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.in_group TO polycline_app;
GRANT SELECT,INSERT,UPDATE ON TABLE public.item TO polycline_app;
GRANT SELECT,INSERT,UPDATE ON TABLE public.known_address TO polycline_app;
GRANT SELECT,INSERT,UPDATE ON TABLE public.known_browser TO polycline_app;
GRANT SELECT,INSERT,UPDATE ON TABLE public.lesson TO polycline_app;
GRANT SELECT,INSERT,UPDATE ON TABLE public.looked TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.master TO polycline_app;
GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.master_member TO polycline_app;
GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.meeting_change TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.one_time_link TO polycline_app;
GRANT UPDATE(used_at) ON TABLE public.one_time_link TO polycline_app;
GRANT SELECT,INSERT,DELETE ON TABLE public.opened TO polycline_app;
GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.order_change TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.person TO polycline_app;
GRANT UPDATE(name) ON TABLE public.person TO polycline_app;
GRANT UPDATE(email) ON TABLE public.person TO polycline_app;
GRANT UPDATE(password_hash) ON TABLE public.person TO polycline_app;
GRANT UPDATE(office) ON TABLE public.person TO polycline_app;
GRANT UPDATE(removed_at) ON TABLE public.person TO polycline_app;
GRANT UPDATE(teacher) ON TABLE public.person TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.private_link TO polycline_app;
GRANT UPDATE(withdrawn_at) ON TABLE public.private_link TO polycline_app;
GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.request TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.roster_import TO polycline_app;
GRANT UPDATE(taken_back_at) ON TABLE public.roster_import TO polycline_app;
GRANT SELECT,INSERT,DELETE ON TABLE public.roster_key TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.section TO polycline_app;
GRANT UPDATE(name) ON TABLE public.section TO polycline_app;
GRANT UPDATE(edition) ON TABLE public.section TO polycline_app;
GRANT UPDATE(version) ON TABLE public.section TO polycline_app;
GRANT UPDATE(slots) ON TABLE public.section TO polycline_app;
GRANT UPDATE(follows_from) ON TABLE public.section TO polycline_app;
GRANT UPDATE(subject) ON TABLE public.section TO polycline_app;
GRANT UPDATE(year) ON TABLE public.section TO polycline_app;
GRANT SELECT,INSERT,DELETE ON TABLE public.section_teacher TO polycline_app;
GRANT SELECT,INSERT,DELETE ON TABLE public.session TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.setting TO polycline_app;
GRANT UPDATE(value) ON TABLE public.setting TO polycline_app;
GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.sign_in_try TO polycline_app;
GRANT SELECT,INSERT,UPDATE ON TABLE public.student_group TO polycline_app;
GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.taught TO polycline_app;
GRANT SELECT,INSERT,UPDATE ON TABLE public.unit TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.work TO polycline_app;
GRANT UPDATE(section) ON TABLE public.work TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.work_move TO polycline_app;
GRANT UPDATE(back) ON TABLE public.work_move TO polycline_app;
GRANT SELECT,INSERT ON TABLE public.work_version TO polycline_app;
GRANT UPDATE(taken_back_at) ON TABLE public.work_version TO polycline_app;
