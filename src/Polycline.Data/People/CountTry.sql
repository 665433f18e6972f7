WITH known AS (
  SELECT k.address FROM known_address k JOIN person p ON p.id = k.person WHERE p.email = @account::citext
), counted AS (
  SELECT count(*) FILTER (WHERE account = @account::citext AND CASE
           WHEN @address IN (SELECT address FROM known) THEN address = @address
           ELSE address NOT IN (SELECT address FROM known)
         END)::int AS at_account,
         count(*) FILTER (WHERE address = @address)::int AS from_address
  FROM sign_in_try
  WHERE (account = @account::citext OR address = @address) AND at > @since
), added AS (
  INSERT INTO sign_in_try (account, address, at) VALUES (@account::citext, @address, @now)
)
SELECT at_account, from_address FROM counted
