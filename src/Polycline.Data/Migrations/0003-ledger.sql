-- Every change of planning, for ever: what a team did in one go, and each row it touched, before and after.
CREATE TABLE batch (
  id         bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  scope_kind text NOT NULL CHECK (scope_kind IN ('edition', 'section', 'term', 'enrolment')),
  scope      bigint NOT NULL,
  version    bigint NOT NULL,
  command    text NOT NULL,
  words      text NOT NULL,
  author     bigint NOT NULL REFERENCES person,
  at         timestamptz NOT NULL,
  undoes     bigint UNIQUE REFERENCES batch,
  UNIQUE (scope_kind, scope, version)
);

CREATE TABLE change (
  batch  bigint NOT NULL REFERENCES batch,
  n      int NOT NULL,
  tbl    text NOT NULL,
  key    jsonb NOT NULL,
  before jsonb,
  after  jsonb,
  PRIMARY KEY (batch, n),
  CHECK (before IS NOT NULL OR after IS NOT NULL)
);
CREATE INDEX change_row ON change (tbl, key);

GRANT SELECT, INSERT ON batch, change TO polycline_app;
