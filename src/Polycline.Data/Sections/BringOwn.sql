-- Units, lessons and items that a section keeps come into the course as of that section only, after what stands there. What they say of
-- others is said by what those are called here.
WITH keeps AS (
  SELECT * FROM unnest(@levels::int[], @old::uuid[], @now::uuid[], @units::bigint[], @lessons::bigint[]) k (level, old, now, unit, lesson)
), groups AS (
  INSERT INTO student_group (edition, name)
  SELECT @to, g.name FROM student_group g WHERE g.edition = @from AND g.removed_at IS NULL
  ON CONFLICT (edition, name) WHERE removed_at IS NULL DO NOTHING
), units AS (
  INSERT INTO unit (edition, lineage, rank, title, published, gate, before, section)
  SELECT @to, k.now, 'zz' || u.rank, u.title, u.published, renamed(u.gate, @names, @renamed), u.before, @section
  FROM keeps k JOIN unit u ON u.edition = @from AND u.lineage = k.old
  WHERE k.level = 0
  RETURNING id, lineage
), lessons AS (
  INSERT INTO lesson (edition, unit, lineage, rank, title, length, min_length, optional, published, gate, section)
  SELECT @to, coalesce(k.unit, n.id), k.now, 'zz' || l.rank, l.title, l.length, l.min_length, l.optional, l.published,
         renamed(l.gate, @names, @renamed), @section
  FROM keeps k JOIN lesson l ON l.edition = @from AND l.lineage = k.old
  LEFT JOIN unit u ON u.id = l.unit
  LEFT JOIN keeps ku ON ku.level = 0 AND ku.old = u.lineage
  LEFT JOIN units n ON n.lineage = ku.now
  WHERE k.level = 1
  RETURNING id, lineage, unit
), items AS (
  INSERT INTO item (edition, unit, lesson, lineage, rank, kind, purpose, title, published, body, opens, due, closes, gate, for_whom, before, options, picks, offered, asks, marked, quiz, rubric, address, about_teacher, about_whom, outcomes, section)
  SELECT @to, coalesce(k.unit, m.unit, n.id), coalesce(k.lesson, m.id), k.now, 'zz' || i.rank, i.kind, i.purpose, i.title, i.published, i.body,
         renamed(i.opens, @names, @renamed), renamed(i.due, @names, @renamed), renamed(i.closes, @names, @renamed),
         renamed(i.gate, @names, @renamed), i.for_whom, i.before, i.options, i.picks, i.offered, i.asks, i.marked, i.quiz, i.rubric, i.address, i.about_teacher, i.about_whom, i.outcomes, @section
  FROM keeps k JOIN item i ON i.edition = @from AND i.lineage = k.old
  LEFT JOIN lesson l ON l.id = i.lesson
  LEFT JOIN keeps kl ON kl.level = 1 AND kl.old = l.lineage
  LEFT JOIN lessons m ON m.lineage = kl.now
  LEFT JOIN unit u ON u.id = i.unit
  LEFT JOIN keeps ku ON ku.level = 0 AND ku.old = u.lineage
  LEFT JOIN units n ON n.lineage = ku.now
  WHERE k.level = 2
  RETURNING id, lineage
), files AS (
  INSERT INTO item_file (edition, item, section, rank, name, file, given, copy_name, brought_by, brought_at)
  SELECT @to, n.id, @section, f.rank, f.name, f.file, f.given, f.copy_name, f.brought_by, f.brought_at
  FROM items n
  JOIN keeps k ON k.level = 2 AND k.now = n.lineage
  JOIN item i ON i.edition = @from AND i.lineage = k.old
  JOIN item_file f ON f.item = i.id AND f.removed_at IS NULL
), notes AS (
  INSERT INTO team_note (edition, place, next_time, text, author, written_at)
  SELECT @to, k.now, n.next_time, n.text, n.author, n.written_at
  FROM keeps k JOIN team_note n ON n.edition = @from AND n.place = k.old AND n.removed_at IS NULL
)
SELECT i.id, n.id FROM items n JOIN keeps k ON k.level = 2 AND k.now = n.lineage JOIN item i ON i.edition = @from AND i.lineage = k.old
