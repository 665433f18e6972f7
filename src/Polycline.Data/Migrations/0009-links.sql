-- Private links: whoever has one reads what it is about, without an account. Only its hash is kept; it can be withdrawn at once.
CREATE TABLE private_link (
  token_hash   bytea PRIMARY KEY CHECK (length(token_hash) = 32),
  kind         text NOT NULL CHECK (kind IN ('section-calendar', 'teacher-calendar', 'student-calendar')),
  person       bigint NOT NULL REFERENCES person,
  section      bigint REFERENCES section,
  made_at      timestamptz NOT NULL,
  withdrawn_at timestamptz,
  CHECK ((kind = 'section-calendar') = (section IS NOT NULL))
);

-- Somebody has one of each kind, and of each section, in force.
CREATE UNIQUE INDEX private_link_in_force ON private_link (person, kind, coalesce(section, 0)) WHERE withdrawn_at IS NULL;

-- How far somebody has looked through what changed in a course.
CREATE TABLE looked (
  person  bigint NOT NULL REFERENCES person,
  edition bigint NOT NULL REFERENCES edition,
  batch   bigint NOT NULL,
  at      timestamptz NOT NULL,
  PRIMARY KEY (person, edition)
);

GRANT SELECT, INSERT ON private_link TO polycline_app;
GRANT UPDATE (withdrawn_at) ON private_link TO polycline_app;
GRANT SELECT, INSERT, UPDATE ON looked TO polycline_app;
