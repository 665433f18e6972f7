WITH known AS (
  SELECT k.address FROM known_address k JOIN person p ON p.id = k.person WHERE p.email = @account::citext
), counted AS (
  SELECT count(*) FILTER (WHERE account = @account::citext AND CASE
           WHEN @address IN (SELECT address FROM known) THEN address = @address
           ELSE address NOT IN (SELECT address FROM known)
         END)::int AS at_account,
         count(*) FILTER (WHERE address = @address AND wrong)::int AS from_address
  FROM sign_in_try
  WHERE (account = @account::citext OR address = @address) AND at > @since
), added AS (
  INSERT INTO sign_in_try (account, address, at, wrong) VALUES (@account::citext, @address, @now, false) RETURNING id
)
SELECT at_account, from_address, (SELECT id FROM added) AS try,
       EXISTS (SELECT 1 FROM known_browser b JOIN person p ON p.id = b.person WHERE b.token_hash = @browser AND p.email = @account::citext) AS knows_browser
FROM counted
