WITH source AS (
  SELECT master, basis, min_start, codes, before, levels, adding_up FROM edition WHERE id = @edition
), made AS (
  INSERT INTO edition (master, ordinal, title, term, basis, min_start, codes, before, levels, adding_up, state, carried_from)
  SELECT master, 1 + (SELECT max(ordinal) FROM edition e WHERE e.master = source.master), @title, @term, basis, min_start, codes, before, levels, adding_up, 'draft', @edition
  FROM source
  RETURNING id
), groups AS (
  -- Their names carry; who is in them does not.
  INSERT INTO student_group (edition, name) SELECT made.id, g.name FROM made, student_group g WHERE g.edition = @edition AND g.removed_at IS NULL
), units AS (
  INSERT INTO unit (edition, lineage, rank, title, published, gate, before, welcome)
  SELECT made.id, u.lineage, u.rank, u.title, u.published, u.gate, u.before, u.welcome
  FROM made, unit u
  WHERE u.edition = @edition AND u.section IS NULL AND u.removed_at IS NULL
  RETURNING id, lineage
), lessons AS (
  INSERT INTO lesson (edition, unit, lineage, rank, title, length, min_length, optional, published, gate)
  SELECT made.id, new.id, l.lineage, l.rank, l.title, l.length, l.min_length, l.optional, l.published, l.gate
  FROM made, lesson l
  JOIN unit u ON u.id = l.unit AND u.removed_at IS NULL
  JOIN units new ON new.lineage = u.lineage
  WHERE l.edition = @edition AND l.section IS NULL AND l.removed_at IS NULL
  RETURNING id, lineage
), items AS (
  INSERT INTO item (edition, unit, lesson, lineage, rank, kind, purpose, title, published, code, body, opens, due, closes, gate, for_whom, before, options, picks, offered, asks, marked, quiz, rubric, address, about_teacher, about_whom, outcomes)
  SELECT made.id, new.id, held.id, i.lineage, i.rank, i.kind, i.purpose, i.title, i.published, NULL, i.body, i.opens, i.due, i.closes, i.gate, i.for_whom, i.before, i.options, i.picks, i.offered, i.asks, i.marked, i.quiz, i.rubric, i.address, i.about_teacher, i.about_whom, i.outcomes
  FROM made, item i
  JOIN unit u ON u.id = i.unit AND u.removed_at IS NULL
  JOIN units new ON new.lineage = u.lineage
  LEFT JOIN lesson l ON l.id = i.lesson
  LEFT JOIN lessons held ON held.lineage = l.lineage
  WHERE i.edition = @edition AND i.section IS NULL AND i.removed_at IS NULL AND l.removed_at IS NULL
  RETURNING id, lineage
), files AS (
  -- The bytes are shared; what stood there before stays behind.
  INSERT INTO item_file (edition, item, rank, name, file, given, copy_name, brought_by, brought_at)
  SELECT made.id, new.id, f.rank, f.name, f.file, f.given, f.copy_name, f.brought_by, f.brought_at
  FROM made, item_file f
  JOIN item i ON i.id = f.item
  JOIN items new ON new.lineage = i.lineage
  WHERE f.edition = @edition AND f.removed_at IS NULL
), notes AS (
  -- What was left for next time is read where it was left.
  INSERT INTO team_note (edition, place, text, author, written_at)
  SELECT made.id, n.place, n.text, n.author, n.written_at
  FROM made, team_note n
  WHERE n.edition = @edition AND n.removed_at IS NULL AND NOT n.next_time
    AND n.place IN (SELECT lineage FROM units UNION ALL SELECT lineage FROM lessons UNION ALL SELECT lineage FROM items)
)
SELECT id FROM made
