-- What a lesson has really taken in a section, and what a section changes in its classes. Kept by the ledger.
CREATE TABLE taught (
  section   bigint NOT NULL REFERENCES section,
  lesson    uuid NOT NULL,
  took      int NOT NULL CHECK (took BETWEEN 0 AND 10000),
  done      boolean NOT NULL,
  left_over int CHECK (left_over BETWEEN 0 AND 10000),
  at        timestamptz NOT NULL,
  version   bigint NOT NULL DEFAULT 1,
  PRIMARY KEY (section, lesson),
  CHECK (NOT done OR left_over IS NULL)
);

CREATE TABLE meeting_change (
  section bigint NOT NULL REFERENCES section,
  seq     int NOT NULL CHECK (seq >= 1),
  change  jsonb NOT NULL,
  version bigint NOT NULL DEFAULT 1,
  PRIMARY KEY (section, seq)
);

GRANT SELECT, INSERT, UPDATE, DELETE ON taught, meeting_change TO polycline_app;

-- Takes a roll-over back, whole: nothing of the new edition is left, and the one it came from is current again. Refused
-- once a student has worked in it.
CREATE OR REPLACE FUNCTION take_back_edition(which bigint) RETURNS bigint LANGUAGE plpgsql SECURITY DEFINER SET search_path = public AS $$
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
  DELETE FROM taught WHERE section IN (SELECT id FROM section WHERE edition = which);
  DELETE FROM meeting_change WHERE section IN (SELECT id FROM section WHERE edition = which AND succeeds IS NOT NULL);
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
