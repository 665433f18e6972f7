SELECT w.person, w.item, v.n, EXISTS (SELECT 1 FROM feedback f WHERE f.work = w.id AND f.n = v.n AND f.taken_back_at IS NULL) AS returned
FROM work w
JOIN work_version v ON v.work = w.id AND v.taken_back_at IS NULL
WHERE w.id = @work AND w.section = @section
ORDER BY v.n DESC
LIMIT 1
