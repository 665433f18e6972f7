-- A question of a quiz may be answered with a file. It is a file of work as any other: it is swept, counted and erased with them.

ALTER TABLE quiz_answer ADD COLUMN file bigint REFERENCES work_file ON DELETE SET NULL;
CREATE INDEX quiz_answer_file ON quiz_answer (file) WHERE file IS NOT NULL;

DO $$
DECLARE
  body text;
BEGIN
  body := replace(pg_get_functiondef('sweep_files(timestamptz)'::regprocedure),
    'UNION ALL SELECT unnest(v.files) FROM work_version v WHERE v.files IS NOT NULL)',
    'UNION ALL SELECT unnest(v.files) FROM work_version v WHERE v.files IS NOT NULL
                     UNION ALL SELECT r.file FROM quiz_answer r WHERE r.file IS NOT NULL)');
  ASSERT body LIKE '%quiz_answer%';
  EXECUTE body;
  body := replace(pg_get_functiondef('erase_files(bigint)'::regprocedure),
    'UNION SELECT unnest(v.files) FROM work_version v JOIN work w ON w.id = v.work WHERE w.person = which) theirs (f);',
    'UNION SELECT unnest(v.files) FROM work_version v JOIN work w ON w.id = v.work WHERE w.person = which
    UNION SELECT r.file FROM quiz_answer r JOIN quiz_attempt a ON a.id = r.attempt WHERE a.person = which AND r.file IS NOT NULL) theirs (f);');
  ASSERT body LIKE '%quiz_answer%';
  EXECUTE body;
END $$;
