SELECT p.id AS person, p.name, p.email::text, p.office, p.teacher, p.password_hash = '' AS invited, p.removed_at IS NOT NULL AS removed,
       (SELECT k.name || ', ' || k.email FROM person k WHERE k.id = p.joined_into) AS joined_into,
       (SELECT max(k.last_at) FROM known_address k WHERE k.person = p.id) AS last_in,
       (SELECT count(*) FROM session s WHERE s.person = p.id AND s.expires_at > @now)::int AS sessions,
       (SELECT count(*) FROM master_member m WHERE m.person = p.id)::int AS courses,
       (SELECT count(*) FROM section_teacher t WHERE t.person = p.id)::int AS teaches,
       ARRAY(
         SELECT DISTINCT c.name
         FROM place n
         JOIN section c ON c.id = n.section
         WHERE n.person = p.id AND n.period @> (@now AT TIME ZONE 'UTC')::date
         ORDER BY c.name
       ) AS sections
FROM person p
ORDER BY p.name, p.id
