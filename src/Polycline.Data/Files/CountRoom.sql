-- What is on its way, and every file once that something of theirs names.
SELECT (
  coalesce((SELECT sum(size) FROM upload WHERE person = @person AND file IS NULL), 0)
  + coalesce((SELECT sum(s.size) FROM stored_file s WHERE s.hash IN (
      SELECT file FROM upload WHERE person = @person AND file IS NOT NULL
      UNION SELECT file FROM item_file WHERE brought_by = @person AND removed_at IS NULL
      UNION SELECT f.file FROM work_file f WHERE f.id = ANY(ARRAY(
        SELECT unnest(v.files) FROM work w JOIN work_version v ON v.work = w.id WHERE w.person = @person
        UNION SELECT unnest(d.files) FROM draft d WHERE d.person = @person
        UNION SELECT r.file FROM quiz_answer r JOIN quiz_attempt a ON a.id = r.attempt WHERE a.person = @person AND r.file IS NOT NULL)))), 0)
)::bigint
