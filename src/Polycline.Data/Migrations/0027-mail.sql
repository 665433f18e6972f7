-- Letters on their way out. Once one has been sent its text is forgotten: it may hold a link that lets somebody in.
CREATE TABLE mail (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  person bigint NOT NULL REFERENCES person,
  subject text NOT NULL CHECK (length(subject) BETWEEN 1 AND 200),
  body text NOT NULL CHECK (length(body) <= 20000),
  made_at timestamptz NOT NULL DEFAULT now(),
  next_try timestamptz NOT NULL DEFAULT now(),
  tries int NOT NULL DEFAULT 0 CHECK (tries >= 0),
  sent_at timestamptz,
  given_up_at timestamptz
);
CREATE INDEX ON mail (next_try) WHERE sent_at IS NULL AND given_up_at IS NULL;
CREATE INDEX ON mail (person);
GRANT SELECT, INSERT, DELETE, UPDATE (body, next_try, tries, sent_at, given_up_at) ON mail TO polycline_app;
