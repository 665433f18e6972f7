-- A student says that they cannot open something. It stays until a teacher settles it, or the student has opened what was shut.
CREATE TABLE cannot_open (
  id         bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  person     bigint NOT NULL REFERENCES person,
  item       bigint NOT NULL REFERENCES item ON DELETE CASCADE,
  section    bigint NOT NULL REFERENCES section,
  note       text NOT NULL CHECK (length(note) <= 500),
  said_at    timestamptz NOT NULL,
  -- It was open to them, and something in it was not.
  was_open   boolean NOT NULL,
  settled_at timestamptz,
  settled_by bigint REFERENCES person
);
CREATE UNIQUE INDEX cannot_open_once ON cannot_open (person, item) WHERE settled_at IS NULL;
CREATE INDEX cannot_open_item ON cannot_open (item);
CREATE INDEX cannot_open_section ON cannot_open (section);
GRANT SELECT, INSERT ON cannot_open TO polycline_app;
GRANT UPDATE (note, said_at, was_open, section, settled_at, settled_by) ON cannot_open TO polycline_app;
