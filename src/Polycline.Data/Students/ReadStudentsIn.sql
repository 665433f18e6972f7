-- What those did whom one of these sections has ever listed, as the database has it now.
SELECT f.person, f.item, f.event, f.at, f.score, f.attempt, f.option, f.again
FROM fact f
JOIN item i ON i.id = f.item AND i.edition = @edition
WHERE f.person IN (SELECT n.person FROM place n WHERE n.section = ANY(@sections)) AND f.voided_at IS NULL AND f.at <= @at
ORDER BY f.id;
