SELECT name, zone, first, last, calendar_of(t)::text AS calendar, version, own_version, settings::text
FROM term t
WHERE id = @term;

SELECT id, kind, first, last, name, runs, periods::text, version
FROM calendar_day
WHERE term = @term
ORDER BY first, last, id;

SELECT id, name, letter, subject, year, edition, version, slots::text, ended_on, pretend IS NOT NULL AS pretend,
       ARRAY(SELECT p.name FROM section_teacher st JOIN person p ON p.id = st.person WHERE st.section = c.id ORDER BY p.name) AS teachers,
       (SELECT count(DISTINCT n.person) FROM place n
        JOIN term t ON t.id = c.term
        WHERE n.section = c.id AND (upper_inf(n.period) OR upper(n.period) > coalesce(c.ended_on, t.last)))::int AS students
FROM section c
WHERE term = @term AND (pretend IS NULL OR edition IS NOT NULL)
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
