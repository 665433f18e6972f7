-- Links that are good once and for a while. One without a person makes the first account of a school; any other sets a password.
CREATE TABLE one_time_link (
  token_hash bytea PRIMARY KEY CHECK (length(token_hash) = 32),
  person     bigint REFERENCES person,
  made_at    timestamptz NOT NULL,
  expires_at timestamptz NOT NULL CHECK (expires_at > made_at),
  used_at    timestamptz
);
CREATE INDEX one_time_link_person ON one_time_link (person);

GRANT SELECT, INSERT ON one_time_link TO polycline_app;
GRANT UPDATE (used_at) ON one_time_link TO polycline_app;

-- Accounts, and the school's name, are made in the application. A password that is empty is none: the person was invited.
GRANT INSERT, UPDATE (name, email, password_hash, office, removed_at) ON person TO polycline_app;
GRANT INSERT ON term, setting TO polycline_app;
