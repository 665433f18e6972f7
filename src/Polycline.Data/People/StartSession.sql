WITH forgiven AS (
  DELETE FROM sign_in_try WHERE account = @account::citext AND address = @address
), known AS (
  INSERT INTO known_address (person, address, last_at) VALUES (@person, @address, @now)
  ON CONFLICT (person, address) DO UPDATE SET last_at = excluded.last_at
), browser AS (
  INSERT INTO known_browser (token_hash, person, last_at) VALUES (@browser, @person, @now)
  ON CONFLICT (token_hash) DO UPDATE SET last_at = excluded.last_at, person = excluded.person
)
INSERT INTO session (token_hash, person, started_at, expires_at) VALUES (@tokenHash, @person, @now, @expires)
