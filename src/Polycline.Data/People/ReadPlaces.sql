SELECT e.id AS edition, m.title AS course, m.subject, e.title, e.state, mm.role,
       (SELECT count(*) FROM section c WHERE c.edition = e.id AND c.pretend IS NULL)::int AS sections
FROM master_member mm
JOIN master m ON m.id = mm.master
JOIN edition e ON e.master = m.id
WHERE mm.person = @person
ORDER BY e.state = 'resting', m.title, e.ordinal DESC;

SELECT c.id AS section, c.name, m.title AS course, t.name AS term_name, t.zone AS term_zone,
       coalesce(lower(n.period), t.first) AS "from", coalesce(upper(n.period) - 1, t.last) AS "to"
FROM place n
JOIN section c ON c.id = n.section
JOIN term t ON t.id = c.term
LEFT JOIN edition e ON e.id = c.edition
LEFT JOIN master m ON m.id = e.master
WHERE n.person = @person
ORDER BY t.first DESC, c.name;

SELECT t.id AS term, t.name, t.zone, t.first, t.last, (SELECT count(*) FROM section c WHERE c.term = t.id AND c.pretend IS NULL)::int AS sections
FROM term t
WHERE @allTerms
ORDER BY t.first DESC;

SELECT value FROM setting WHERE key = 'school-name';

SELECT e.id AS edition, m.title AS course, m.subject, e.title, e.state, '' AS role,
       (SELECT count(*) FROM section c WHERE c.edition = e.id AND c.pretend IS NULL)::int AS sections
FROM edition e
JOIN master m ON m.id = e.master
WHERE @office AND e.state <> 'resting'
ORDER BY m.title, e.ordinal DESC;
