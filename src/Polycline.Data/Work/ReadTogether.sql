SELECT w.id, w.person, v.n
FROM work_version mine
JOIN work_version v ON v.together = mine.together AND v.work <> mine.work AND v.taken_back_at IS NULL
JOIN work w ON w.id = v.work AND w.section = @section
WHERE mine.work = @work AND mine.n = @n
  AND v.n = (SELECT max(l.n) FROM work_version l WHERE l.work = v.work AND l.taken_back_at IS NULL)
  AND NOT EXISTS (SELECT 1 FROM feedback f WHERE f.work = v.work AND f.n = v.n AND f.taken_back_at IS NULL)
ORDER BY w.id
FOR UPDATE OF w
