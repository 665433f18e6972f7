SELECT e.id, e.master, m.title AS course_title, m.subject, m.version AS name_version, e.title, e.state, e.basis, e.min_start, e.codes, e.before, e.levels::text, e.adding_up::text, e.version, e.own_version, e.codes_fixed_at,
       t.id AS term, t.name AS term_name, t.zone, t.first, t.last, calendar_of(t)::text AS calendar, t.version AS term_version
FROM edition e
JOIN master m ON m.id = e.master
JOIN term t ON t.id = e.term
WHERE e.id = @edition;

SELECT id, lineage, rank, title, published, gate::text, before, welcome, version, section
FROM unit
WHERE edition = @edition AND removed_at IS NULL
ORDER BY rank, id;

SELECT l.id, l.lineage, l.unit, l.rank, l.title, l.length, l.min_length, l.optional, l.published, l.gate::text, l.version, l.section
FROM lesson l
JOIN unit u ON u.id = l.unit AND u.removed_at IS NULL
WHERE l.edition = @edition AND l.removed_at IS NULL
ORDER BY l.rank, l.id;

SELECT i.id, i.lineage, i.unit, i.lesson, i.rank, i.kind, i.purpose, i.title, i.published, i.code, i.body, i.opens::text, i.due::text, i.closes::text,
       i.gate::text, i.for_whom::text, i.before, i.options, i.picks, i.offered::text, i.asks::text, i.marked::text, i.quiz, i.rubric, i.address, i.about_teacher, i.about_whom, i.outcomes, i.version, i.section
FROM item i
JOIN unit u ON u.id = i.unit AND u.removed_at IS NULL
LEFT JOIN lesson l ON l.id = i.lesson
WHERE i.edition = @edition AND i.removed_at IS NULL AND l.removed_at IS NULL
ORDER BY i.rank, i.id;

SELECT c.id, c.name, c.letter, c.slots::text, c.version, c.follows_from, c.ended_on, c.pretend::text,
       ARRAY(SELECT p.name FROM section_teacher st JOIN person p ON p.id = st.person WHERE st.section = c.id ORDER BY p.name) AS teachers
FROM section c
WHERE c.edition = @edition
ORDER BY c.pretend IS NOT NULL, c.name;

SELECT n.id, n.section, n.person, lower(n.period) AS "from", upper(n.period) - 1 AS "to", n.version
FROM place n
JOIN section c ON c.id = n.section
WHERE c.edition = @edition
ORDER BY n.section, n.person, n.period;

SELECT a.section, a.target::text, a.field, a.value::text, a.version
FROM adjustment a
JOIN section c ON c.id = a.section
WHERE c.edition = @edition
ORDER BY a.section, a.target, a.field;

SELECT t.section, t.lesson::text, t.took, t.done, t.left_over AS "left", t.at, t.version
FROM taught t
JOIN section c ON c.id = t.section
WHERE c.edition = @edition
ORDER BY t.section, t.at, t.lesson;

SELECT m.section, m.seq, m.change::text, m.version
FROM meeting_change m
JOIN section c ON c.id = m.section
WHERE c.edition = @edition
ORDER BY m.section, m.seq;

SELECT o.section, o.seq, o.target::text, o.change::text, o.version
FROM order_change o
JOIN section c ON c.id = o.section
WHERE c.edition = @edition
ORDER BY o.section, o.seq;

SELECT o.section, i.lineage::text AS item, o.at, o.due
FROM opened o
JOIN section c ON c.id = o.section
JOIN item i ON i.id = o.item AND i.edition = @edition
WHERE c.edition = @edition;

SELECT code
FROM item
WHERE edition = @edition AND removed_at IS NOT NULL AND code IS NOT NULL;

-- What was removed, alone or with its lesson or unit, and somebody has begun: they and their teachers still read it.
SELECT i.id, i.lineage, i.unit, i.lesson, i.rank, i.kind, i.purpose, i.title, i.published, i.code, i.body, NULL AS opens, NULL AS due, NULL AS closes,
       NULL AS gate, NULL AS for_whom, i.before, i.options, i.picks, i.offered::text, i.asks::text, i.marked::text, i.quiz, i.rubric, i.address, i.about_teacher, i.about_whom, i.outcomes, i.version, i.section
FROM item i
JOIN unit u ON u.id = i.unit
LEFT JOIN lesson l ON l.id = i.lesson
WHERE i.edition = @edition AND (i.removed_at IS NOT NULL OR u.removed_at IS NOT NULL OR l.removed_at IS NOT NULL)
  AND EXISTS (SELECT 1 FROM fact f WHERE f.item = i.id AND f.voided_at IS NULL AND f.event <> 'opened')
ORDER BY i.id;

SELECT g.id, g.name, g.version, ARRAY(SELECT m.person FROM in_group m JOIN person p ON p.id = m.person AND p.joined_into IS NULL
                                       WHERE m.student_group = g.id ORDER BY m.person) AS members
FROM student_group g
WHERE g.edition = @edition AND g.removed_at IS NULL
ORDER BY g.name;

SELECT person, section, version
FROM home
WHERE edition = @edition;

SELECT person, item::text, field, value::text, move, version
FROM exception x
WHERE edition = @edition AND NOT EXISTS (SELECT 1 FROM person p WHERE p.id = x.person AND p.joined_into IS NOT NULL)
ORDER BY person, item, field, move;

SELECT person, due_days, quiz_time, reason, version
FROM arrangement a
WHERE edition = @edition AND NOT EXISTS (SELECT 1 FROM person p WHERE p.id = a.person AND p.joined_into IS NOT NULL);

SELECT item, name, encode(file, 'hex') AS hash, given, copy_name
FROM item_file
WHERE edition = @edition AND removed_at IS NULL
ORDER BY item, rank, id;
