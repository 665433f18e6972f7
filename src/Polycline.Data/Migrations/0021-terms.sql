-- A term in which nothing stands can be removed again, with everything marked in it.
CREATE FUNCTION remove_term(which bigint) RETURNS void
LANGUAGE plpgsql SECURITY DEFINER SET search_path TO 'public' AS $$
BEGIN
  IF EXISTS (SELECT 1 FROM section WHERE term = which) OR EXISTS (SELECT 1 FROM edition WHERE term = which) THEN
    RAISE EXCEPTION 'something stands in term %', which USING ERRCODE = 'PC003';
  END IF;
  DELETE FROM change WHERE batch IN (SELECT id FROM batch WHERE scope_kind = 'term' AND scope = which);
  DELETE FROM batch WHERE scope_kind = 'term' AND scope = which;
  DELETE FROM calendar_day WHERE term = which;
  DELETE FROM term WHERE id = which;
END $$;
REVOKE ALL ON FUNCTION remove_term(bigint) FROM PUBLIC;
GRANT EXECUTE ON FUNCTION remove_term(bigint) TO polycline_app;
