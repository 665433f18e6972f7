-- Everything that is kept about a person, as they would be told it.
SELECT jsonb_build_object(
  'account', jsonb_build_object('name', p.name, 'email', p.email, 'office', p.office, 'teacher', p.teacher, 'deactivatedAt', p.removed_at),
  'sections', (SELECT coalesce(jsonb_agg(jsonb_build_object('section', c.name, 'term', t.name, 'from', lower(n.period), 'to', upper(n.period) - 1) ORDER BY n.id), '[]')
               FROM place n JOIN section c ON c.id = n.section JOIN term t ON t.id = c.term WHERE n.person = p.id),
  'teaches', (SELECT coalesce(jsonb_agg(c.name ORDER BY c.id), '[]') FROM section_teacher st JOIN section c ON c.id = st.section WHERE st.person = p.id),
  'teams', (SELECT coalesce(jsonb_agg(jsonb_build_object('course', m.title, 'role', mm.role) ORDER BY m.id), '[]')
            FROM master_member mm JOIN master m ON m.id = mm.master WHERE mm.person = p.id),
  'rubricsKept', (SELECT coalesce(jsonb_agg(jsonb_build_object('since', k.kept_at, 'rubric', (b.data ->> 'Rubric')::jsonb -> 'name') ORDER BY k.id), '[]')
            FROM kept_rubric k JOIN body b ON b.hash = k.rubric WHERE k.person = p.id),
  'groups', (SELECT coalesce(jsonb_agg(jsonb_build_object('group', g.name, 'since', i.at) ORDER BY i.at), '[]')
             FROM in_group i JOIN student_group g ON g.id = i.student_group WHERE i.person = p.id),
  'agreed', (SELECT coalesce(jsonb_agg(jsonb_build_object('course', m.title, 'moreDays', a.due_days, 'moreTimeInQuizzes', a.quiz_time, 'reason', a.reason)), '[]')
             FROM arrangement a JOIN edition e ON e.id = a.edition JOIN master m ON m.id = e.master WHERE a.person = p.id),
  'differences', (SELECT coalesce(jsonb_agg(jsonb_build_object('course', m.title, 'item', i.title, 'field', x.field, 'value', x.value)), '[]')
                  FROM exception x JOIN edition e ON e.id = x.edition JOIN master m ON m.id = e.master
                  LEFT JOIN item i ON i.edition = x.edition AND i.lineage::text = x.item::text WHERE x.person = p.id),
  'work', (SELECT coalesce(jsonb_agg(jsonb_build_object(
             'item', i.title, 'section', c.name,
             'versions', (SELECT jsonb_agg(jsonb_build_object('handedInAt', v.handed_in_at, 'takenBackAt', v.taken_back_at, 'text', v.text, 'links', v.links, 'entries', v.entries, 'ownJudgement', v.judged,
                            'files', (SELECT coalesce(jsonb_agg(f.name ORDER BY array_position(v.files, f.id)), '[]') FROM work_file f WHERE f.id = ANY(v.files))) ORDER BY v.n)
                          FROM work_version v WHERE v.work = w.id),
             'readyToGoBack', (SELECT jsonb_agg(r.request - 'work' ORDER BY r.at) FROM ready_mark r WHERE r.work = w.id),
             'feedback', (SELECT coalesce(jsonb_agg(jsonb_build_object('by', b.name, 'at', f.returned_at, 'text', f.text, 'again', f.again, 'mark', f.mark, 'remarks', f.remarks) ORDER BY f.id), '[]')
                          FROM feedback f JOIN person b ON b.id = f.by WHERE f.work = w.id)) ORDER BY w.id), '[]')
           FROM work w JOIN item i ON i.id = w.item JOIN section c ON c.id = w.section WHERE w.person = p.id),
  'drafts', (SELECT coalesce(jsonb_agg(jsonb_build_object('item', i.title, 'savedAt', d.saved_at, 'text', d.text, 'links', d.links, 'entries', d.entries, 'ownJudgement', d.judged,
               'files', (SELECT coalesce(jsonb_agg(f.name ORDER BY array_position(d.files, f.id)), '[]') FROM work_file f WHERE f.id = ANY(d.files))) ORDER BY d.saved_at), '[]')
             FROM draft d JOIN item i ON i.id = d.item WHERE d.person = p.id),
  'copies', (SELECT coalesce(jsonb_agg(jsonb_build_object('name', f.name, 'text', t.text) ORDER BY f.id), '[]')
             FROM draft d JOIN work_file f ON f.id = ANY(d.files) JOIN copy_text t ON t.file = f.id WHERE d.person = p.id),
  'sheets', (SELECT coalesce(jsonb_agg(jsonb_build_object('item', i.title, 'at', v.at, 'text', v.text) ORDER BY v.at, v.block, v.n), '[]')
             FROM sheet_block_version v JOIN sheet_block b ON b.id = v.block JOIN sheet s ON s.id = b.sheet JOIN item i ON i.id = s.item WHERE v.author = p.id),
  'quizzes', (SELECT coalesce(jsonb_agg(jsonb_build_object('item', i.title, 'attempt', a.n, 'begun', a.began_at, 'ended', a.ended_at,
                'answers', (SELECT coalesce(jsonb_agg(jsonb_build_object('question', r.question, 'answer', r.answer, 'at', r.at) ORDER BY r.seq), '[]')
                            FROM quiz_answer r WHERE r.attempt = a.id)) ORDER BY a.id), '[]')
              FROM quiz_attempt a JOIN item i ON i.id = a.item WHERE a.person = p.id),
  'couldNotOpen', (SELECT coalesce(jsonb_agg(jsonb_build_object('item', i.title, 'saidAt', c.said_at, 'note', c.note, 'settledAt', c.settled_at) ORDER BY c.id), '[]')
                   FROM cannot_open c JOIN item i ON i.id = c.item WHERE c.person = p.id),
  'waitsFor', (SELECT coalesce(jsonb_agg(jsonb_build_object('item', i.title, 'option', q.option, 'since', q.at, 'cameUpAt', q.came_up_at) ORDER BY q.id), '[]')
               FROM option_queue q JOIN item i ON i.id = q.item WHERE q.person = p.id),
  'happened', (SELECT coalesce(jsonb_agg(jsonb_build_object('what', f.event, 'item', i.title, 'at', f.at, 'score', f.score, 'chosen', f.option) ORDER BY f.at, f.id), '[]')
               FROM fact f JOIN item i ON i.id = f.item WHERE f.person = p.id AND f.voided_at IS NULL),
  'feedbackGiven', (SELECT coalesce(jsonb_agg(jsonb_build_object('item', i.title, 'at', f.returned_at, 'text', f.text, 'remarks', f.remarks) ORDER BY f.id), '[]')
                    FROM feedback f JOIN work w ON w.id = f.work JOIN item i ON i.id = w.item WHERE f.by = p.id),
  'notesForTheTeam', (SELECT coalesce(jsonb_agg(jsonb_build_object('at', n.written_at, 'text', n.text) ORDER BY n.id), '[]') FROM team_note n WHERE n.author = p.id),
  'textsBeingWritten', (SELECT coalesce(jsonb_agg(jsonb_build_object('item', i.title, 'at', v.at) ORDER BY v.at, v.item, v.n), '[]')
                        FROM text_draft_version v JOIN item i ON i.id = v.item WHERE v.author = p.id),
  'changedPlans', (SELECT coalesce(jsonb_agg(jsonb_build_object('at', b.at, 'words', b.words) ORDER BY b.id), '[]') FROM batch b WHERE b.author = p.id),
  'signedIn', (SELECT coalesce(jsonb_agg(jsonb_build_object('at', a.at, 'from', a.about ->> 'address') ORDER BY a.id), '[]')
               FROM audit a WHERE a.who = p.id AND a.what = 'signed-in'),
  'sessions', (SELECT coalesce(jsonb_agg(jsonb_build_object('since', s.started_at, 'until', s.expires_at) ORDER BY s.started_at), '[]') FROM session s WHERE s.person = p.id)
)::text
FROM person p
WHERE p.id = @person
