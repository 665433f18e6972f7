-- No batch is newer than its scope's counter.
SELECT format('%s %s stands at version %s, but its log goes to %s', scope_kind, scope, counter, logged)
FROM (
  SELECT b.scope_kind, b.scope, max(b.version) AS logged,
         CASE b.scope_kind
           WHEN 'edition' THEN (SELECT version FROM edition WHERE id = b.scope)
           WHEN 'section' THEN (SELECT version FROM section WHERE id = b.scope)
           WHEN 'term' THEN (SELECT version FROM term WHERE id = b.scope)
           ELSE (SELECT version FROM enrolment WHERE id = b.scope)
         END AS counter
  FROM batch b
  GROUP BY b.scope_kind, b.scope
) scopes
WHERE counter IS NULL OR logged > counter
