CREATE TABLE term (
  id       bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  name     text NOT NULL UNIQUE,
  zone     text NOT NULL,
  first    date NOT NULL,
  last     date NOT NULL,
  calendar jsonb NOT NULL,
  version  bigint NOT NULL DEFAULT 1,
  CHECK (first <= last)
);

CREATE TABLE master (
  id    bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  title text NOT NULL CHECK (title <> ''),
  words jsonb NOT NULL DEFAULT '{}'
);

CREATE TABLE master_member (
  master bigint NOT NULL REFERENCES master,
  person bigint NOT NULL REFERENCES person,
  role   text NOT NULL CHECK (role IN ('lead', 'co')),
  PRIMARY KEY (master, person)
);
CREATE INDEX master_member_person ON master_member (person);

CREATE TABLE edition (
  id        bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  master    bigint NOT NULL REFERENCES master,
  ordinal   int NOT NULL CHECK (ordinal >= 1),
  title     text NOT NULL CHECK (title <> ''),
  term      bigint NOT NULL REFERENCES term,
  basis     text NOT NULL DEFAULT 'meetings' CHECK (basis IN ('meetings', 'minutes')),
  min_start int NOT NULL DEFAULT 10 CHECK (min_start >= 0),
  codes     text NOT NULL DEFAULT 'by-unit' CHECK (codes IN ('by-unit', 'straight')),
  before    text NOT NULL DEFAULT 'listed' CHECK (before IN ('listed', 'unseen')),
  state     text NOT NULL DEFAULT 'draft' CHECK (state IN ('draft', 'current', 'resting')),
  version   bigint NOT NULL DEFAULT 1,
  UNIQUE (master, ordinal)
);
CREATE UNIQUE INDEX edition_one_current ON edition (master) WHERE state = 'current';

CREATE TABLE unit (
  id         bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  edition    bigint NOT NULL REFERENCES edition,
  lineage    uuid NOT NULL,
  rank       text COLLATE "C" NOT NULL,
  title      text NOT NULL CHECK (title <> ''),
  published  boolean NOT NULL DEFAULT false,
  removed_at timestamptz,
  version    bigint NOT NULL DEFAULT 1,
  UNIQUE (edition, lineage),
  UNIQUE (edition, id)
);

CREATE TABLE lesson (
  id         bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  edition    bigint NOT NULL REFERENCES edition,
  unit       bigint NOT NULL,
  lineage    uuid NOT NULL,
  rank       text COLLATE "C" NOT NULL,
  title      text NOT NULL CHECK (title <> ''),
  length     int NOT NULL CHECK (length >= 0),
  min_length int CHECK (min_length BETWEEN 0 AND length),
  optional   boolean NOT NULL DEFAULT false,
  published  boolean NOT NULL DEFAULT false,
  removed_at timestamptz,
  version    bigint NOT NULL DEFAULT 1,
  UNIQUE (edition, lineage),
  UNIQUE (unit, id),
  FOREIGN KEY (edition, unit) REFERENCES unit (edition, id)
);

CREATE TABLE item (
  id         bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  edition    bigint NOT NULL REFERENCES edition,
  unit       bigint NOT NULL,
  lesson     bigint,
  lineage    uuid NOT NULL,
  rank       text COLLATE "C" NOT NULL,
  kind       text NOT NULL CHECK (kind IN ('page', 'link', 'handout', 'task', 'quiz', 'choice', 'discussion')),
  purpose    text NOT NULL CHECK (purpose IN ('to-read', 'practice', 'for-marks')),
  title      text NOT NULL CHECK (title <> '' AND length(title) <= 200),
  published  boolean NOT NULL DEFAULT false,
  code       text CHECK (code <> ''),
  removed_at timestamptz,
  version    bigint NOT NULL DEFAULT 1,
  UNIQUE (edition, lineage),
  FOREIGN KEY (edition, unit) REFERENCES unit (edition, id),
  FOREIGN KEY (unit, lesson) REFERENCES lesson (unit, id)
);
CREATE INDEX lesson_edition ON lesson (edition);
CREATE INDEX item_edition ON item (edition);

-- An edition at rest is readable, searchable, unchangeable.
CREATE FUNCTION refuse_resting() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF EXISTS (SELECT 1 FROM edition WHERE id = coalesce(NEW.edition, OLD.edition) AND state = 'resting') THEN
    RAISE EXCEPTION 'edition % is at rest', coalesce(NEW.edition, OLD.edition) USING ERRCODE = 'PC001';
  END IF;
  RETURN NEW;
END $$;
CREATE TRIGGER unit_at_rest BEFORE INSERT OR UPDATE ON unit FOR EACH ROW EXECUTE FUNCTION refuse_resting();
CREATE TRIGGER lesson_at_rest BEFORE INSERT OR UPDATE ON lesson FOR EACH ROW EXECUTE FUNCTION refuse_resting();
CREATE TRIGGER item_at_rest BEFORE INSERT OR UPDATE ON item FOR EACH ROW EXECUTE FUNCTION refuse_resting();

CREATE TABLE section (
  id      bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  name    text NOT NULL CHECK (name <> ''),
  letter  text NOT NULL CHECK (letter ~ '^[A-Z]$'),
  term    bigint NOT NULL REFERENCES term,
  edition bigint REFERENCES edition,
  version bigint NOT NULL DEFAULT 1,
  UNIQUE (term, name)
);
CREATE INDEX section_edition ON section (edition);

CREATE TABLE section_teacher (
  section bigint NOT NULL REFERENCES section,
  person  bigint NOT NULL REFERENCES person,
  PRIMARY KEY (section, person)
);
CREATE INDEX section_teacher_person ON section_teacher (person);

CREATE TABLE enrolment (
  id      bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  section bigint NOT NULL REFERENCES section,
  person  bigint NOT NULL REFERENCES person,
  period  daterange NOT NULL CHECK (NOT isempty(period)),
  version bigint NOT NULL DEFAULT 1,
  EXCLUDE USING gist (section WITH =, person WITH =, period WITH &&)
);
CREATE INDEX enrolment_person ON enrolment (person);

-- One thing a section does differently: one row a cell; a null value is a cleared one; putting back deletes.
CREATE TABLE adjustment (
  section bigint NOT NULL REFERENCES section,
  target  uuid NOT NULL,
  field   text NOT NULL,
  value   jsonb,
  version bigint NOT NULL DEFAULT 1,
  PRIMARY KEY (section, target, field)
);

GRANT SELECT, UPDATE (version) ON term, edition, section, enrolment TO polycline_app;
GRANT SELECT ON master, master_member, section_teacher TO polycline_app;
GRANT SELECT, INSERT, UPDATE ON unit, lesson, item TO polycline_app;
GRANT SELECT, INSERT, UPDATE, DELETE ON adjustment TO polycline_app;
