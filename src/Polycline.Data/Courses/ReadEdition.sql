SELECT e.id, e.master, m.title AS course_title, e.title, e.state, e.codes, e.version
FROM edition e
JOIN master m ON m.id = e.master
WHERE e.id = @edition;

SELECT id, title, published, version
FROM unit
WHERE edition = @edition AND removed_at IS NULL
ORDER BY rank, id;

SELECT id, unit, title, length, optional, published, version
FROM lesson
WHERE edition = @edition AND removed_at IS NULL
ORDER BY rank, id;

SELECT id, unit, lesson, kind, purpose, title, published, code, version
FROM item
WHERE edition = @edition AND removed_at IS NULL
ORDER BY rank, id;

SELECT c.id, c.name, c.letter, (SELECT count(DISTINCT person) FROM enrolment n WHERE n.section = c.id AND upper_inf(n.period))::int AS students
FROM section c
WHERE c.edition = @edition
ORDER BY c.name;
