SELECT p.id AS person, p.name, p.email::text, p.removed_at IS NOT NULL AS removed, p.teacher, k.key
FROM person p
LEFT JOIN roster_key k ON k.source = @source AND k.kind = 'person' AND k.about = p.id
WHERE p.email = ANY(@emails::citext[]) OR k.key = ANY(@people);

SELECT c.id AS section, c.name, c.letter, c.subject, c.year, c.edition, c.ended_on, k.key,
       ARRAY(SELECT person FROM section_teacher st WHERE st.section = c.id) AS teachers
FROM section c
LEFT JOIN roster_key k ON k.source = @source AND k.kind = 'section' AND k.about = c.id
WHERE c.term = @term AND c.pretend IS NULL;

SELECT n.id AS place, n.section, n.person, p.name, lower(n.period) AS "from", upper(n.period) - 1 AS "to"
FROM enrolment n
JOIN section c ON c.id = n.section
JOIN person p ON p.id = n.person
WHERE c.term = @term
ORDER BY p.name, n.id
