-- What people did, the latest first: changes of planning by their words, everything else by its name.
SELECT r.at, r.who, p.name AS name, r.what, r.words, r.place, r.about, s.name AS subject
FROM (
  SELECT a.at, a.who, a.what, '' AS words, '' AS place, a.about::text AS about, (a.about ->> 'person')::bigint AS subject, a.id
  FROM audit a
  WHERE @audit AND a.at <= @now AND (@kinds::text[] IS NULL OR (a.what = ANY(@kinds)) = @among) AND (@person::bigint IS NULL OR a.who = @person OR a.about ->> 'person' = @person::text)
  UNION ALL
  SELECT b.at, b.author, '', b.words,
         coalesce((SELECT m.title || ', ' || e.title FROM edition e JOIN master m ON m.id = e.master WHERE b.scope_kind = 'edition' AND e.id = b.scope),
                  (SELECT t.name FROM term t WHERE b.scope_kind = 'term' AND t.id = b.scope), ''),
         '{}', NULL, b.id
  FROM batch b
  WHERE @plans AND b.at <= @now AND (@person::bigint IS NULL OR b.author = @person)
  ORDER BY 1 DESC, 8 DESC
  LIMIT @most OFFSET @skip
) r
LEFT JOIN person p ON p.id = r.who
LEFT JOIN person s ON s.id = r.subject
ORDER BY r.at DESC, r.id DESC
