-- Takes a roll-over back, whole: nothing of the new edition is left, and the one it came from is current again. Refused
-- once a student has worked in it.
CREATE FUNCTION take_back_edition(which bigint) RETURNS bigint LANGUAGE plpgsql SECURITY DEFINER SET search_path = public AS $$
DECLARE
  origin bigint;
BEGIN
  SELECT carried_from INTO origin FROM edition WHERE id = which FOR UPDATE;
  IF origin IS NULL THEN
    RAISE EXCEPTION 'edition % was not rolled over', which USING ERRCODE = 'PC002';
  END IF;
  IF EXISTS (SELECT 1 FROM item i WHERE i.edition = which AND (
       EXISTS (SELECT 1 FROM fact f WHERE f.item = i.id) OR EXISTS (SELECT 1 FROM draft d WHERE d.item = i.id) OR EXISTS (SELECT 1 FROM work w WHERE w.item = i.id)))
     OR EXISTS (SELECT 1 FROM edition e WHERE e.carried_from = which) THEN
    RAISE EXCEPTION 'students have worked in edition %', which USING ERRCODE = 'PC003';
  END IF;
  DELETE FROM change WHERE batch IN (SELECT id FROM batch WHERE scope_kind = 'edition' AND scope = which);
  DELETE FROM batch WHERE scope_kind = 'edition' AND scope = which;
  DELETE FROM adjustment WHERE section IN (SELECT id FROM section WHERE edition = which);
  -- A section that was there before and joined keeps all it has, and follows nothing; those that were made for it go.
  UPDATE section SET edition = NULL, version = version + 1 WHERE edition = which AND succeeds IS NULL;
  DELETE FROM enrolment WHERE section IN (SELECT id FROM section WHERE edition = which);
  DELETE FROM section_teacher WHERE section IN (SELECT id FROM section WHERE edition = which);
  DELETE FROM section WHERE edition = which;
  DELETE FROM item WHERE edition = which;
  DELETE FROM lesson WHERE edition = which;
  DELETE FROM unit WHERE edition = which;
  DELETE FROM edition WHERE id = which;
  UPDATE edition SET state = 'current', version = version + 1 WHERE id = origin;
  RETURN origin;
END $$;
REVOKE ALL ON FUNCTION take_back_edition(bigint) FROM PUBLIC;
GRANT EXECUTE ON FUNCTION take_back_edition(bigint) TO polycline_app;
