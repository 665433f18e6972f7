-- What a section is taught, and in which year, beside its name. Empty: not said.
ALTER TABLE section
  ADD COLUMN subject text NOT NULL DEFAULT '' CHECK (length(subject) <= 120),
  ADD COLUMN year text NOT NULL DEFAULT '' CHECK (length(year) <= 40);
GRANT UPDATE (name, subject, year) ON section TO polycline_app;

-- A section that follows nothing and has never had a student can be removed again.
CREATE FUNCTION remove_section(which bigint) RETURNS void
LANGUAGE plpgsql SECURITY DEFINER SET search_path TO 'public' AS $$
BEGIN
  IF EXISTS (SELECT 1 FROM section WHERE id = which AND edition IS NOT NULL) THEN
    RAISE EXCEPTION 'section % follows a course', which USING ERRCODE = 'PC003';
  END IF;
  DELETE FROM private_link WHERE section = which;
  DELETE FROM section_teacher WHERE section = which;
  DELETE FROM section WHERE id = which;
EXCEPTION WHEN foreign_key_violation THEN
  RAISE EXCEPTION 'something stands in section %', which USING ERRCODE = 'PC003';
END $$;
REVOKE ALL ON FUNCTION remove_section(bigint) FROM PUBLIC;
GRANT EXECUTE ON FUNCTION remove_section(bigint) TO polycline_app;
