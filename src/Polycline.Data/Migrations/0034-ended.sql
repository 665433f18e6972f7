-- The last day of a section that was ended before its term; null: it goes on to the end.
ALTER TABLE section ADD COLUMN ended_on date;
GRANT UPDATE (ended_on) ON section TO polycline_app;

-- Enrolments as they count: none goes on beyond the last day of its section. The enrolment itself is kept as it was, so that a section
-- that goes on after all has everybody again.
CREATE VIEW place AS
SELECT n.id, n.section, n.person, n.version,
       CASE WHEN c.ended_on IS NULL THEN n.period ELSE n.period * daterange(NULL, c.ended_on, '(]') END AS period
FROM enrolment n
JOIN section c ON c.id = n.section
WHERE c.ended_on IS NULL OR n.period && daterange(NULL, c.ended_on, '(]');
GRANT SELECT ON place TO polycline_app;
