-- What a source of rosters calls people and sections here: they are found again by it, however they are called by then.
CREATE TABLE roster_key (
  source text NOT NULL CHECK (length(source) BETWEEN 1 AND 200),
  kind   text NOT NULL CHECK (kind IN ('person', 'section')),
  key    text NOT NULL CHECK (length(key) BETWEEN 1 AND 200),
  about  bigint NOT NULL,
  PRIMARY KEY (source, kind, key)
);
CREATE INDEX roster_key_about ON roster_key (kind, about);

-- What was imported, and what it wrote: that is taken back by it.
CREATE TABLE roster_import (
  id            bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  at            timestamptz NOT NULL,
  by            bigint NOT NULL REFERENCES person,
  term          bigint NOT NULL REFERENCES term,
  file          text NOT NULL,
  sentence      text NOT NULL,
  written       jsonb NOT NULL,
  taken_back_at timestamptz
);

GRANT SELECT, INSERT, DELETE ON roster_key TO polycline_app;
GRANT SELECT, INSERT ON roster_import TO polycline_app;
GRANT UPDATE (taken_back_at) ON roster_import TO polycline_app;
GRANT INSERT, DELETE, UPDATE (period) ON enrolment TO polycline_app;
GRANT DELETE ON section_teacher TO polycline_app;
GRANT UPDATE (value) ON setting TO polycline_app;
