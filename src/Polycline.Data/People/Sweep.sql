WITH sessions AS (DELETE FROM session WHERE expires_at <= @now),
     tries AS (DELETE FROM sign_in_try WHERE at <= @tries)
DELETE FROM request WHERE at <= @requests
