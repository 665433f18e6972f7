-- Of those named, or of all whom a section of the edition has ever listed.
SELECT n.person, n.section, lower(n.period) AS "from", upper(n.period) - 1 AS "to"
FROM place n
JOIN section c ON c.id = n.section
WHERE n.person = ANY(coalesce(@students::bigint[], ARRAY(SELECT e.person FROM place e JOIN section s ON s.id = e.section WHERE s.edition = @edition))) AND c.edition = @edition
ORDER BY c.name, n.period;

SELECT person, item, event, at, score, attempt, option, again
FROM fact
WHERE person = ANY(coalesce(@students::bigint[], ARRAY(SELECT e.person FROM place e JOIN section s ON s.id = e.section WHERE s.edition = @edition))) AND voided_at IS NULL AND at <= @at
ORDER BY id;

SELECT w.item, coalesce(f.n, 0) AS n, p.name AS by, f.text, f.again, f.mark::text, f.returned_at, f.remarks::text
FROM work w
JOIN feedback f ON f.work = w.id
JOIN person p ON p.id = f.by
JOIN item i ON i.id = w.item
WHERE w.person = ANY(coalesce(@students::bigint[], ARRAY(SELECT e.person FROM place e JOIN section s ON s.id = e.section WHERE s.edition = @edition))) AND i.edition = @edition AND f.returned_at <= @at AND (f.taken_back_at IS NULL OR f.taken_back_at > @at)
ORDER BY f.returned_at DESC, f.id DESC;
