-- What students of the school should be able to do: a list of its own, from a file of the office's.
CREATE TABLE outcome (
  code       text COLLATE "C" PRIMARY KEY CHECK (code <> '' AND length(code) <= 40),
  words      text NOT NULL CHECK (words <> '' AND length(words) <= 500),
  subject    text NOT NULL CHECK (length(subject) <= 80),
  rank       int NOT NULL,
  -- What is no longer in the file is offered no more, and still read where something was tied to it.
  removed_at timestamptz
);

-- Each file that was taken in, with the list as it was before.
CREATE TABLE outcome_import (
  id        bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  by        bigint NOT NULL REFERENCES person,
  at        timestamptz NOT NULL,
  before    jsonb NOT NULL,
  undone_at timestamptz
);
CREATE INDEX outcome_import_by ON outcome_import (by);

-- By code: the list is the school's, and a course goes to other schools.
ALTER TABLE item ADD COLUMN outcomes text[] NOT NULL DEFAULT '{}' CHECK (cardinality(outcomes) <= 20);

GRANT SELECT, INSERT, UPDATE (words, subject, rank, removed_at) ON outcome TO polycline_app;
GRANT SELECT, INSERT, UPDATE (undone_at) ON outcome_import TO polycline_app;
