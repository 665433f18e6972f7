CREATE EXTENSION IF NOT EXISTS citext;
CREATE EXTENSION IF NOT EXISTS btree_gist;

CREATE TABLE person (
  id            bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  name          text NOT NULL CHECK (name <> ''),
  email         citext NOT NULL UNIQUE,
  password_hash text NOT NULL,
  office        boolean NOT NULL DEFAULT false,
  removed_at    timestamptz
);

CREATE TABLE session (
  token_hash bytea PRIMARY KEY CHECK (length(token_hash) = 32),
  person     bigint NOT NULL REFERENCES person,
  started_at timestamptz NOT NULL,
  expires_at timestamptz NOT NULL
);
CREATE INDEX session_person ON session (person);

-- One row a try to sign in, kept for as long as tries are counted.
CREATE TABLE sign_in_try (
  id      bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  account citext NOT NULL,
  address inet NOT NULL,
  at      timestamptz NOT NULL
);
CREATE INDEX sign_in_try_account ON sign_in_try (account, at);
CREATE INDEX sign_in_try_address ON sign_in_try (address, at);

-- From where a person has signed in before: strangers' tries do not lock them out there.
CREATE TABLE known_address (
  person  bigint NOT NULL REFERENCES person,
  address inet NOT NULL,
  last_at timestamptz NOT NULL,
  PRIMARY KEY (person, address)
);

CREATE TABLE audit (
  id    bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  at    timestamptz NOT NULL,
  who   bigint REFERENCES person,
  what  text NOT NULL,
  about jsonb NOT NULL DEFAULT '{}'
);

CREATE TABLE setting (
  key   text PRIMARY KEY,
  value text NOT NULL
);

-- What was answered to a request that carried an idempotency key: sent twice, it is done once.
CREATE TABLE request (
  person bigint NOT NULL REFERENCES person,
  key    uuid NOT NULL,
  asked  bytea NOT NULL,
  status int,
  answer jsonb,
  at     timestamptz NOT NULL,
  PRIMARY KEY (person, key)
);
CREATE INDEX request_at ON request (at);

GRANT SELECT ON person TO polycline_app;
GRANT SELECT, INSERT, DELETE ON session TO polycline_app;
GRANT SELECT, INSERT, DELETE ON sign_in_try TO polycline_app;
GRANT SELECT, INSERT, UPDATE ON known_address TO polycline_app;
GRANT SELECT, INSERT ON audit TO polycline_app;
GRANT SELECT ON setting TO polycline_app;
GRANT SELECT, INSERT, UPDATE, DELETE ON request TO polycline_app;
