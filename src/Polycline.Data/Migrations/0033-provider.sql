-- Who somebody is to the school's sign-in provider: by its own stable name for them, whatever their address becomes.
CREATE TABLE provider_identity (
  issuer text NOT NULL CHECK (length(issuer) BETWEEN 1 AND 500),
  subject text NOT NULL CHECK (length(subject) BETWEEN 1 AND 255),
  person bigint NOT NULL REFERENCES person,
  linked_at timestamptz NOT NULL,
  PRIMARY KEY (issuer, subject),
  UNIQUE (person, issuer)
);
GRANT SELECT, INSERT, DELETE ON provider_identity TO polycline_app;

-- Somebody on their way to the provider and back: good once, in the browser it began in, for ten minutes.
CREATE TABLE provider_trip (
  state_hash bytea PRIMARY KEY CHECK (length(state_hash) = 32),
  browser_hash bytea NOT NULL CHECK (length(browser_hash) = 32),
  nonce text NOT NULL,
  verifier text NOT NULL,
  next text NOT NULL CHECK (length(next) <= 2000),
  expires_at timestamptz NOT NULL
);
CREATE INDEX ON provider_trip (expires_at);
GRANT SELECT, INSERT, DELETE ON provider_trip TO polycline_app;

CREATE FUNCTION forget_identity() RETURNS trigger LANGUAGE plpgsql SECURITY DEFINER SET search_path TO 'public' AS $$
BEGIN
  DELETE FROM provider_identity WHERE person = NEW.id;
  RETURN NULL;
END $$;
CREATE TRIGGER forget_identity AFTER UPDATE OF email ON person FOR EACH ROW WHEN (NEW.email LIKE '%@erased.invalid') EXECUTE FUNCTION forget_identity();
