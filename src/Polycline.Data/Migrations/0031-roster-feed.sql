-- Rosters fetched from the school's feed. One waits for somebody's yes; its content is forgotten once it has been answered.
CREATE TABLE roster_fetch (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  at timestamptz NOT NULL,
  term bigint NOT NULL REFERENCES term,
  night date UNIQUE,
  by bigint REFERENCES person,
  state text NOT NULL CHECK (state IN ('fetching', 'waiting', 'nothing', 'failed', 'imported', 'set-aside', 'overtaken')),
  sentence text NOT NULL DEFAULT '' CHECK (length(sentence) <= 2000),
  content bytea CHECK (length(content) <= 15000000)
);
CREATE INDEX ON roster_fetch (term, id);
GRANT SELECT, INSERT, UPDATE (state, sentence, content) ON roster_fetch TO polycline_app;
