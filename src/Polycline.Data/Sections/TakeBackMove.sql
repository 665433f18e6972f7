-- The batch that moved work, whether it is undone itself, or an undoing of it is.
WITH RECURSIVE root AS (
  SELECT id, undoes FROM batch WHERE id = @undone
  UNION ALL
  SELECT b.id, b.undoes FROM batch b JOIN root r ON b.id = r.undoes
), moved AS (
  SELECT m.* FROM work_move m JOIN root r ON r.id = m.batch LIMIT 1
), stays AS MATERIALIZED (
  -- Nothing of what they did since is left behind.
  SELECT CASE WHEN EXISTS (
    SELECT 1 FROM moved m JOIN fact f ON f.section = m.section JOIN item i ON i.id = f.item
    WHERE f.event <> 'opened' AND f.voided_at IS NULL
      AND i.edition = CASE WHEN m.back THEN m.came_from ELSE m.edition END
      AND NOT f.item = ANY(CASE WHEN m.back THEN m.from_items ELSE m.to_items END)
  ) THEN refuse_left_behind() END
), done AS MATERIALIZED (
  SELECT m.batch, CASE WHEN m.back THEN move_work(m.section, m.from_items, m.to_items) ELSE move_work(m.section, m.to_items, m.from_items) END
  FROM moved m, stays
)
UPDATE work_move m SET back = NOT back FROM done WHERE m.batch = done.batch
RETURNING m.batch, m.edition, m.came_from
