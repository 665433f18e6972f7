-- What somebody gave for an answer that they read; of several for one question the latest counts.
CREATE TABLE quiz_mark (
  id       bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  attempt  bigint NOT NULL REFERENCES quiz_attempt,
  question text NOT NULL,
  points   numeric(7, 2) NOT NULL CHECK (points >= 0),
  words    text NOT NULL,
  by       bigint NOT NULL REFERENCES person,
  at       timestamptz NOT NULL
);
CREATE INDEX quiz_mark_attempt ON quiz_mark (attempt);
GRANT SELECT, INSERT ON quiz_mark TO polycline_app;

-- What was said of an answer goes with it; its points stay, and name nobody.
CREATE OR REPLACE FUNCTION erase_quizzes(which bigint) RETURNS void LANGUAGE sql SECURITY DEFINER SET search_path TO 'public' AS $$
  DELETE FROM quiz_answer r USING quiz_attempt a WHERE a.id = r.attempt AND a.person = which;
  UPDATE quiz_mark m SET words = '' FROM quiz_attempt a WHERE a.id = m.attempt AND a.person = which;
$$;
