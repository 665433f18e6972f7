-- A course of a section's own: everything of the edition it follows that is the course's or this section's, called as it is there.
WITH source AS (
  SELECT e.*, m.title AS course, m.subject, c.name AS section_name FROM edition e JOIN master m ON m.id = e.master JOIN section c ON c.id = @section WHERE e.id = @edition
), course AS (
  INSERT INTO master (title, subject) SELECT left(course || ', ' || section_name, 200), subject FROM source RETURNING id
), team AS (
  INSERT INTO master_member (master, person, role) SELECT course.id, st.person, 'lead' FROM course, section_teacher st WHERE st.section = @section
), made AS (
  INSERT INTO edition (master, ordinal, title, term, basis, min_start, codes, before, levels, adding_up, state, codes_fixed_at)
  SELECT course.id, 1, s.title, s.term, s.basis, s.min_start, s.codes, s.before, s.levels, s.adding_up, 'current', s.codes_fixed_at FROM course, source s
  RETURNING id
), groups AS (
  INSERT INTO student_group (edition, name) SELECT made.id, g.name FROM made, student_group g WHERE g.edition = @edition AND g.removed_at IS NULL
  RETURNING id, name
), members AS (
  INSERT INTO in_group (student_group, person, at)
  SELECT g.id, i.person, i.at FROM groups g
  JOIN student_group o ON o.edition = @edition AND o.name = g.name AND o.removed_at IS NULL
  JOIN in_group i ON i.student_group = o.id
  WHERE EXISTS (SELECT 1 FROM enrolment n WHERE n.section = @section AND n.person = i.person)
), agreed AS (
  INSERT INTO arrangement (edition, person, due_days, quiz_time, reason)
  SELECT made.id, a.person, a.due_days, a.quiz_time, a.reason FROM made, arrangement a
  WHERE a.edition = @edition AND EXISTS (SELECT 1 FROM enrolment n WHERE n.section = @section AND n.person = a.person)
), different AS (
  INSERT INTO exception (edition, person, item, field, value, move)
  SELECT made.id, x.person, x.item, x.field, x.value, x.move FROM made, exception x
  WHERE x.edition = @edition AND EXISTS (SELECT 1 FROM enrolment n WHERE n.section = @section AND n.person = x.person)
), units AS (
  INSERT INTO unit (edition, lineage, rank, title, published, gate, before, welcome, removed_at)
  SELECT made.id, u.lineage, u.rank, u.title, u.published, u.gate, u.before, u.welcome, u.removed_at
  FROM made, unit u WHERE u.edition = @edition AND (u.section IS NULL OR u.section = @section)
  RETURNING id, lineage
), lessons AS (
  INSERT INTO lesson (edition, unit, lineage, rank, title, length, min_length, optional, published, gate, removed_at)
  SELECT made.id, new.id, l.lineage, l.rank, l.title, l.length, l.min_length, l.optional, l.published, l.gate, l.removed_at
  FROM made, lesson l JOIN unit u ON u.id = l.unit JOIN units new ON new.lineage = u.lineage
  WHERE l.edition = @edition AND (l.section IS NULL OR l.section = @section)
  RETURNING id, lineage
), items AS (
  INSERT INTO item (edition, unit, lesson, lineage, rank, kind, purpose, title, published, code, body, opens, due, closes, gate, for_whom, before, options, picks, offered, asks, marked, quiz, rubric, address, about_teacher, about_whom, outcomes, removed_at)
  SELECT made.id, new.id, held.id, i.lineage, i.rank, i.kind, i.purpose, i.title, i.published, i.code, i.body, i.opens, i.due, i.closes, i.gate, i.for_whom,
         i.before, i.options, i.picks, i.offered, i.asks, i.marked, i.quiz, i.rubric, i.address, i.about_teacher, i.about_whom, i.outcomes, i.removed_at
  FROM made, item i JOIN unit u ON u.id = i.unit JOIN units new ON new.lineage = u.lineage
  LEFT JOIN lesson l ON l.id = i.lesson LEFT JOIN lessons held ON held.lineage = l.lineage
  WHERE i.edition = @edition AND (i.section IS NULL OR i.section = @section)
  RETURNING id, lineage
), files AS (
  INSERT INTO item_file (edition, item, rank, name, file, given, copy_name, brought_by, brought_at)
  SELECT made.id, new.id, f.rank, f.name, f.file, f.given, f.copy_name, f.brought_by, f.brought_at
  FROM made, item_file f JOIN item i ON i.id = f.item JOIN items new ON new.lineage = i.lineage
  WHERE f.edition = @edition AND f.removed_at IS NULL
), notes AS (
  INSERT INTO team_note (edition, place, next_time, text, author, written_at)
  SELECT made.id, n.place, n.next_time, n.text, n.author, n.written_at
  FROM made, team_note n
  WHERE n.edition = @edition AND n.removed_at IS NULL
    AND n.place IN (SELECT lineage FROM units UNION ALL SELECT lineage FROM lessons UNION ALL SELECT lineage FROM items)
)
SELECT id FROM made
