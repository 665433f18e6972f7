-- What an item asks of a student; null: what its kind usually asks.
ALTER TABLE item ADD COLUMN asks jsonb;
-- Where a link leads.
ALTER TABLE item ADD COLUMN address text CHECK (address ~ '^https?://[^ ]+$' AND length(address) <= 2000);

-- What is ticked off where nothing is handed in is two facts of one request.
ALTER TABLE fact DROP CONSTRAINT fact_person_request_key;
ALTER TABLE fact ADD UNIQUE (person, request, event);

-- What was found when an address was last tried.
CREATE TABLE link_check (
  address    text PRIMARY KEY CHECK (length(address) <= 2000),
  outcome    text NOT NULL CHECK (outcome IN ('open', 'sign-in', 'gone', 'silent', 'not-tried')),
  checked_at timestamptz NOT NULL,
  -- When it last answered; null: never yet.
  reached_at timestamptz
);
GRANT SELECT, INSERT, UPDATE, DELETE ON link_check TO polycline_app;
