-- What happened. Never updated: a mistaken one is voided through a function of the owner's, and then counts at no moment.
CREATE TABLE fact (
  id          bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  person      bigint NOT NULL REFERENCES person,
  item        bigint NOT NULL REFERENCES item,
  section     bigint NOT NULL REFERENCES section,
  event       text NOT NULL CHECK (event IN ('opened', 'begun', 'ticked', 'unticked', 'submitted', 'taken-back', 'returned', 'scored', 'picked')),
  at          timestamptz NOT NULL,
  recorded_at timestamptz NOT NULL,
  by          bigint NOT NULL REFERENCES person,
  score       numeric CHECK (score BETWEEN 0 AND 10000),
  attempt     int NOT NULL DEFAULT 1 CHECK (attempt >= 1),
  option      text,
  again       boolean NOT NULL DEFAULT false,
  request     uuid NOT NULL,
  voided_at   timestamptz,
  voided_by   bigint REFERENCES person,
  CHECK ((event = 'scored') = (score IS NOT NULL)),
  CHECK ((voided_at IS NULL) = (voided_by IS NULL)),
  UNIQUE (person, request)
);
CREATE INDEX fact_person_item ON fact (person, item);
CREATE INDEX fact_section ON fact (section, event);

-- One piece of work: a student's on an item; its versions are what was handed in, in turn.
CREATE TABLE work (
  id      bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  person  bigint NOT NULL REFERENCES person,
  item    bigint NOT NULL REFERENCES item,
  section bigint NOT NULL REFERENCES section,
  UNIQUE (person, item)
);
CREATE INDEX work_section ON work (section);

CREATE TABLE work_version (
  work         bigint NOT NULL REFERENCES work,
  n            int NOT NULL CHECK (n >= 1),
  text         text NOT NULL,
  handed_in_at timestamptz NOT NULL,
  claimed_at   timestamptz,
  request      uuid NOT NULL,
  PRIMARY KEY (work, n),
  UNIQUE (work, request)
);

-- The only text of students that is updated in place. With a missed hand-in: it was sent, but came after the item closed.
CREATE TABLE draft (
  person     bigint NOT NULL REFERENCES person,
  item       bigint NOT NULL REFERENCES item,
  text       text NOT NULL,
  saved_at   timestamptz NOT NULL,
  missed_at  timestamptz,
  claimed_at timestamptz,
  version    bigint NOT NULL DEFAULT 1,
  PRIMARY KEY (person, item)
);

CREATE TABLE feedback (
  id          bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  work        bigint NOT NULL,
  n           int NOT NULL,
  by          bigint NOT NULL REFERENCES person,
  text        text NOT NULL,
  again       boolean NOT NULL,
  returned_at timestamptz NOT NULL,
  FOREIGN KEY (work, n) REFERENCES work_version
);
CREATE INDEX feedback_work ON feedback (work, n);

GRANT SELECT, INSERT ON fact, work_version, feedback TO polycline_app;
-- Of a piece nothing is changed; the grant lets two hand-ins at once wait for one another.
GRANT SELECT, INSERT, UPDATE (section) ON work TO polycline_app;
GRANT SELECT, INSERT, UPDATE, DELETE ON draft TO polycline_app;
