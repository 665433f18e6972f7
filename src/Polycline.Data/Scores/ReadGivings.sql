-- What was last given in one go in each section of an edition, and not taken back.
SELECT DISTINCT ON (g.section) g.section, g.given, g.scores, p.name AS by, g.at
FROM (
  SELECT f.section, f.given, f.by, max(f.at) AS at, count(*)::int AS scores
  FROM fact f JOIN section s ON s.id = f.section
  WHERE s.edition = @edition AND f.given IS NOT NULL AND f.event = 'returned' AND f.voided_at IS NULL AND f.at <= @at
  GROUP BY f.section, f.given, f.by
) g
JOIN person p ON p.id = g.by
ORDER BY g.section, g.at DESC
