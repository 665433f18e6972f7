-- What has opened for a section stays open when the plan moves: when it did, and which due was then announced. A record
-- goes only with the change that brought it about, where that is undone before any student made use of it.
CREATE TABLE opened (
  section     bigint NOT NULL REFERENCES section,
  item        bigint NOT NULL REFERENCES item,
  at          timestamptz NOT NULL,
  due         timestamptz,
  recorded_at timestamptz NOT NULL,
  PRIMARY KEY (section, item)
);

CREATE INDEX opened_item ON opened (item);

-- Where sequence matters: units put elsewhere, lessons put after others, in turn. Kept by the ledger.
CREATE TABLE order_change (
  section bigint NOT NULL REFERENCES section,
  seq     int NOT NULL CHECK (seq >= 1),
  target  uuid NOT NULL,
  change  jsonb NOT NULL,
  version bigint NOT NULL DEFAULT 1,
  PRIMARY KEY (section, seq)
);

-- They stood among the other differences, one a unit.
INSERT INTO order_change (section, seq, target, change)
SELECT section, row_number() OVER (PARTITION BY section ORDER BY target), target, jsonb_build_object('order', value)
FROM adjustment
WHERE field = 'order';
DELETE FROM adjustment WHERE field = 'order';
ALTER TABLE adjustment ADD CONSTRAINT adjustment_field_check CHECK (field IN ('opens', 'due', 'closes', 'for', 'published', 'hold', 'skip', 'length', 'pin', 'lesson'));

GRANT SELECT, INSERT, DELETE ON opened TO polycline_app;
GRANT UPDATE (slots) ON section TO polycline_app;
GRANT SELECT, INSERT, UPDATE, DELETE ON order_change TO polycline_app;

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
  DELETE FROM order_change WHERE section IN (SELECT id FROM section WHERE edition = which);
  DELETE FROM opened WHERE section IN (SELECT id FROM section WHERE edition = which);
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
