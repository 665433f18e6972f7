-- What is kept about a person, also in tables that later migrations make, is erased: who they are, what they wrote, what was written to them. What happened stays, and names nobody.
CREATE FUNCTION erase_person(which bigint, at timestamptz) RETURNS void LANGUAGE plpgsql SECURITY DEFINER SET search_path TO 'public' AS $$
DECLARE
  mail_address citext;
BEGIN
  SELECT email INTO mail_address FROM person WHERE id = which FOR UPDATE;
  UPDATE edition SET version = version + 1 WHERE id IN (
    SELECT c.edition FROM section c JOIN section_teacher st ON st.section = c.id WHERE st.person = which
    UNION SELECT c.edition FROM section c JOIN enrolment n ON n.section = c.id WHERE n.person = which);
  DELETE FROM session WHERE person = which;
  DELETE FROM one_time_link WHERE person = which;
  DELETE FROM private_link WHERE person = which;
  DELETE FROM known_browser WHERE person = which;
  DELETE FROM known_address WHERE person = which;
  DELETE FROM sign_in_try WHERE account = mail_address;
  DELETE FROM request WHERE person = which;
  DELETE FROM mail WHERE person = which;
  DELETE FROM code_use WHERE person = which;
  DELETE FROM looked WHERE person = which;
  DELETE FROM draft WHERE person = which;
  DELETE FROM upload WHERE person = which;
  UPDATE cannot_open SET note = '' WHERE person = which;
  DELETE FROM roster_key WHERE kind = 'person' AND about = which;
  DELETE FROM section_teacher WHERE person = which;
  DELETE FROM master_member WHERE person = which;
  UPDATE work_version v SET text = '', links = NULL, entries = NULL, files = NULL FROM work w WHERE w.id = v.work AND w.person = which;
  UPDATE feedback f SET text = '' FROM work w WHERE w.id = f.work AND w.person = which;
  UPDATE arrangement SET reason = '' WHERE person = which;
  UPDATE change SET
    before = CASE WHEN before ? 'reason' THEN before || '{"reason": ""}' ELSE before END,
    after = CASE WHEN after ? 'reason' THEN after || '{"reason": ""}' ELSE after END
  WHERE tbl = 'arrangement' AND (key ->> 'person')::bigint = which;
  UPDATE audit SET about = '{}' WHERE who = which AND about ? 'address';
  UPDATE roster_import SET written = jsonb_set(written, '{Renamed}',
    (SELECT coalesce(jsonb_agg(one), '[]') FROM jsonb_array_elements(written -> 'Renamed') one WHERE (one ->> 'Person')::bigint <> which))
  WHERE written -> 'Renamed' @> jsonb_build_array(jsonb_build_object('Person', which));
  UPDATE person SET name = 'Somebody erased', email = 'erased-' || which || '@erased.invalid', password_hash = '', office = false,
    teacher = false, removed_at = coalesce(removed_at, erase_person.at)
  WHERE id = which;
END $$;
REVOKE ALL ON FUNCTION erase_person(bigint, timestamptz) FROM PUBLIC;
GRANT EXECUTE ON FUNCTION erase_person(bigint, timestamptz) TO polycline_app;
