SELECT (SELECT count(*) FROM work_version v JOIN work w ON w.id = v.work WHERE w.person = @person)::int AS texts,
       (SELECT count(*) FROM feedback f JOIN work w ON w.id = f.work WHERE w.person = @person)::int AS feedback,
       (SELECT count(*) FROM draft WHERE person = @person)::int AS drafts,
       (SELECT count(*) FROM fact WHERE person = @person)::int AS facts,
       (SELECT count(*) FROM feedback WHERE by = @person)::int AS feedback_given,
       (SELECT count(*) FROM batch WHERE author = @person)::int AS changes,
       ARRAY(SELECT m.title FROM master_member mm JOIN master m ON m.id = mm.master
             WHERE mm.person = @person AND mm.role = 'lead' AND EXISTS (SELECT FROM edition e WHERE e.master = m.id AND e.state <> 'resting')
               AND NOT EXISTS (SELECT FROM master_member o JOIN person p ON p.id = o.person AND p.removed_at IS NULL
                               WHERE o.master = m.id AND o.role = 'lead' AND o.person <> @person)
             ORDER BY m.title) AS leads_alone
