-- A code by which people join a section themselves: until a day, so many of them, straight away or once a teacher has agreed.
CREATE TABLE section_code (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  section bigint NOT NULL REFERENCES section,
  code text NOT NULL UNIQUE CHECK (code ~ '^[A-Z2-9]{8}$'),
  made_by bigint NOT NULL REFERENCES person,
  made_at timestamptz NOT NULL,
  until date NOT NULL,
  most int NOT NULL CHECK (most BETWEEN 1 AND 500),
  approve boolean NOT NULL,
  withdrawn_at timestamptz
);
CREATE INDEX ON section_code (section);
GRANT SELECT, INSERT, UPDATE (withdrawn_at) ON section_code TO polycline_app;

-- Who has used one.
CREATE TABLE code_use (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  code bigint NOT NULL REFERENCES section_code,
  person bigint NOT NULL REFERENCES person,
  at timestamptz NOT NULL,
  state text NOT NULL CHECK (state IN ('waiting', 'in', 'refused')),
  answered_by bigint REFERENCES person,
  answered_at timestamptz,
  UNIQUE (code, person)
);
CREATE INDEX ON code_use (person);
GRANT SELECT, INSERT, UPDATE (state, at, answered_by, answered_at) ON code_use TO polycline_app;
