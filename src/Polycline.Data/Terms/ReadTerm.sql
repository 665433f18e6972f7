SELECT name, zone, first, last, calendar_of(t)::text AS calendar, version, own_version, settings::text
FROM term t
WHERE id = @term;

SELECT id, kind, first, last, name, runs, periods::text, version
FROM calendar_day
WHERE term = @term
ORDER BY first, last, id;

SELECT id, name, letter, edition, slots::text
FROM section
WHERE term = @term
ORDER BY name;

SELECT m.section, m.seq, m.change::text, m.version
FROM meeting_change m
JOIN section c ON c.id = m.section
WHERE c.term = @term
ORDER BY m.section, m.seq;

SELECT e.id, e.version, t.version AS term_version
FROM edition e
JOIN term t ON t.id = e.term
WHERE e.term = @term AND EXISTS (SELECT 1 FROM section c WHERE c.edition = e.id)
ORDER BY e.id;
