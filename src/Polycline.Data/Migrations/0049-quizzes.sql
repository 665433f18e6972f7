-- The questions of a quiz, with their keys: written once, like a text, and never sent to a student as they are kept.
ALTER TABLE body DROP CONSTRAINT body_kind_check;
ALTER TABLE body ADD CONSTRAINT body_kind_check CHECK (kind IN ('text', 'draft', 'quiz'));
ALTER TABLE item ADD COLUMN quiz bytea REFERENCES body;
CREATE INDEX item_quiz ON item (quiz) WHERE quiz IS NOT NULL;

CREATE TABLE quiz_attempt (
  id         bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  person     bigint NOT NULL REFERENCES person,
  item       bigint NOT NULL REFERENCES item,
  section    bigint NOT NULL REFERENCES section,
  n          int NOT NULL CHECK (n >= 1),
  -- What was put to the student, whatever the quiz says later.
  paper      bytea NOT NULL REFERENCES body,
  began_at   timestamptz NOT NULL,
  ended_at   timestamptz CHECK (ended_at >= began_at),
  -- When the facts of its end were recorded; null: it runs.
  settled_at timestamptz,
  -- The paper by whose keys it was last scored: where the quiz has another by now, it is marked again.
  scored_by  bytea REFERENCES body,
  UNIQUE (person, item, n)
);
CREATE INDEX quiz_attempt_item ON quiz_attempt (item);
CREATE INDEX quiz_attempt_section ON quiz_attempt (section);
CREATE INDEX quiz_attempt_paper ON quiz_attempt (paper);
CREATE INDEX quiz_attempt_scored_by ON quiz_attempt (scored_by) WHERE scored_by IS NOT NULL;
CREATE INDEX quiz_attempt_running ON quiz_attempt (id) WHERE settled_at IS NULL;

-- Every answer that was given, one after another; the last that counts is marked.
CREATE TABLE quiz_answer (
  attempt  bigint NOT NULL REFERENCES quiz_attempt,
  seq      int NOT NULL CHECK (seq >= 1),
  question text NOT NULL,
  answer   jsonb NOT NULL,
  at       timestamptz NOT NULL,
  PRIMARY KEY (attempt, seq)
);

GRANT SELECT, INSERT, UPDATE (ended_at, settled_at, scored_by) ON quiz_attempt TO polycline_app;
GRANT SELECT, INSERT ON quiz_answer TO polycline_app;

-- What somebody answered goes with them; that they sat the quiz stays, and names nobody.
CREATE FUNCTION erase_quizzes(which bigint) RETURNS void LANGUAGE sql SECURITY DEFINER SET search_path TO 'public' AS $$
  DELETE FROM quiz_answer r USING quiz_attempt a WHERE a.id = r.attempt AND a.person = which;
$$;

-- Two accounts of one person: the attempts of the one come after those of the other, and can be told apart again.
ALTER TABLE quiz_attempt ADD COLUMN joined_from bigint REFERENCES person, ADD COLUMN joined_n int;
CREATE INDEX quiz_attempt_joined_from ON quiz_attempt (joined_from) WHERE joined_from IS NOT NULL;

CREATE FUNCTION join_quizzes(kept bigint, other bigint) RETURNS void LANGUAGE plpgsql SECURITY DEFINER SET search_path TO 'public' AS $$
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

CREATE FUNCTION separate_quizzes(kept bigint, other bigint) RETURNS void LANGUAGE plpgsql SECURITY DEFINER SET search_path TO 'public' AS $$
#variable_conflict use_variable
BEGIN
  UPDATE fact f SET attempt = a.joined_n FROM quiz_attempt a
  WHERE a.joined_from = other AND a.person = kept AND f.person = other AND f.item = a.item AND f.attempt = a.n
    AND f.event IN ('begun', 'submitted', 'scored');
  UPDATE quiz_attempt a SET person = other, n = a.joined_n, joined_from = NULL, joined_n = NULL
  WHERE a.joined_from = other AND a.person = kept;
END $$;

REVOKE ALL ON FUNCTION erase_quizzes(bigint), join_quizzes(bigint, bigint), separate_quizzes(bigint, bigint) FROM PUBLIC;
GRANT EXECUTE ON FUNCTION erase_quizzes(bigint), join_quizzes(bigint, bigint), separate_quizzes(bigint, bigint) TO polycline_app;
