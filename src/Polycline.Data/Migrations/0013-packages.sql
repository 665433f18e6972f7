-- When a course was taken in from a file; until a section follows it that can be undone.
ALTER TABLE edition ADD COLUMN taken_in_at timestamptz;

-- What is never deleted goes here alone: a course that was taken in and that nothing came of.
CREATE FUNCTION take_back_course(which bigint) RETURNS void LANGUAGE plpgsql SECURITY DEFINER SET search_path = public AS $$
DECLARE
  held bigint;
BEGIN
  SELECT master INTO held FROM edition WHERE id = which AND taken_in_at IS NOT NULL FOR UPDATE;
  IF held IS NULL THEN
    RAISE EXCEPTION 'edition % was not taken in', which USING ERRCODE = 'PC002';
  END IF;
  IF EXISTS (SELECT 1 FROM section WHERE edition = which) OR EXISTS (SELECT 1 FROM edition WHERE master = held AND id <> which)
     OR EXISTS (SELECT 1 FROM item i WHERE i.edition = which AND (EXISTS (SELECT 1 FROM fact f WHERE f.item = i.id) OR EXISTS (SELECT 1 FROM work w WHERE w.item = i.id))) THEN
    RAISE EXCEPTION 'something came of edition %', which USING ERRCODE = 'PC003';
  END IF;
  DELETE FROM change WHERE batch IN (SELECT id FROM batch WHERE scope_kind = 'edition' AND scope = which);
  DELETE FROM batch WHERE scope_kind = 'edition' AND scope = which;
  DELETE FROM looked WHERE edition = which;
  DELETE FROM item WHERE edition = which;
  DELETE FROM lesson WHERE edition = which;
  DELETE FROM unit WHERE edition = which;
  DELETE FROM edition WHERE id = which;
  DELETE FROM master_member WHERE master = held;
  DELETE FROM master WHERE id = held;
END $$;

GRANT EXECUTE ON FUNCTION take_back_course(bigint) TO polycline_app;
GRANT INSERT ON master, master_member TO polycline_app;

REVOKE ALL ON FUNCTION take_back_course(bigint) FROM PUBLIC;

-- A roll-over that is taken back removes sections and what is of one section only in one go.
ALTER TABLE unit ALTER CONSTRAINT unit_section_fkey DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE lesson ALTER CONSTRAINT lesson_section_fkey DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE item ALTER CONSTRAINT item_section_fkey DEFERRABLE INITIALLY DEFERRED;
