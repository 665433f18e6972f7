WITH known AS (
  SELECT k.address FROM known_address k JOIN person p ON p.id = k.person WHERE p.email = @account::citext
), counted AS (
  SELECT count(*) FILTER (WHERE account = @account::citext AND address = @address)::int AS here,
         count(*) FILTER (WHERE address = @address)::int AS from_address,
         count(*) FILTER (WHERE account = @account::citext AND address NOT IN (SELECT address FROM known))::int AS from_strangers
  FROM sign_in_try
  WHERE (account = @account::citext OR address = @address) AND at > @since
), added AS (
  INSERT INTO sign_in_try (account, address, at) VALUES (@account::citext, @address, @now)
)
SELECT here, from_address, from_strangers, @address IN (SELECT address FROM known) AS address_is_known FROM counted
