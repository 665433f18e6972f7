SELECT encode(b.hash, 'hex') AS hash, b.data ->> 'Quiz' AS content
FROM body b
WHERE b.kind = 'quiz' AND b.hash IN (
  SELECT i.quiz FROM item i WHERE i.edition = @edition AND i.quiz IS NOT NULL
  UNION SELECT a.paper FROM quiz_attempt a JOIN item i ON i.id = a.item WHERE i.edition = @edition);

SELECT a.id, a.person, a.item, a.section, a.n, encode(a.paper, 'hex') AS paper, a.lot, a.began_at, a.ended_at, a.settled_at, encode(a.scored_by, 'hex') AS scored_by
FROM quiz_attempt a JOIN item i ON i.id = a.item
WHERE i.edition = @edition AND a.began_at <= @at AND (@student::bigint IS NULL OR a.person = @student)
ORDER BY a.n;

SELECT r.attempt, r.question, r.answer::text, r.at
FROM quiz_attempt a JOIN item i ON i.id = a.item JOIN quiz_answer r ON r.attempt = a.id
WHERE i.edition = @edition AND r.at <= @at AND (@student::bigint IS NULL OR a.person = @student)
ORDER BY r.attempt, r.seq;

SELECT a.person, a.item, a.n, m.question, m.points, m.words, p.name AS by, m.at
FROM quiz_attempt a JOIN item i ON i.id = a.item JOIN quiz_mark m ON m.attempt = a.id JOIN person p ON p.id = m.by
WHERE i.edition = @edition AND m.at <= @at AND (@student::bigint IS NULL OR a.person = @student)
ORDER BY m.id;

SELECT w.person, w.item, v.handed_in_at AS at
FROM work w JOIN item i ON i.id = w.item JOIN work_version v ON v.work = w.id
WHERE i.edition = @edition AND v.handed_in_at <= @at AND (v.taken_back_at IS NULL OR v.taken_back_at > @at)
  AND (@student::bigint IS NULL OR w.person = @student)
ORDER BY v.handed_in_at;

SELECT w.person, w.item, f.returned_at AS at, f.again, f.mark::text
FROM work w JOIN item i ON i.id = w.item JOIN feedback f ON f.work = w.id
WHERE i.edition = @edition AND f.returned_at <= @at AND (f.taken_back_at IS NULL OR f.taken_back_at > @at)
  AND (@student::bigint IS NULL OR w.person = @student)
ORDER BY f.id;
