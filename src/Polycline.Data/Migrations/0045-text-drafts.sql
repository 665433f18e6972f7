-- A team writes a text before students read it: what it said each time it was saved. The text itself is a body of its own kind, so that
-- it goes when nobody writes on it, and its pictures stay as long as it does.
ALTER TABLE body DROP CONSTRAINT body_kind_check;
ALTER TABLE body ADD CHECK (kind IN ('text', 'draft'));

-- Without n: nobody is writing, and the text is as it stands in the item.
CREATE TABLE text_draft (
  item bigint PRIMARY KEY REFERENCES item ON DELETE CASCADE,
  n    int CHECK (n > 0)
);

CREATE TABLE text_draft_version (
  item   bigint NOT NULL REFERENCES text_draft ON DELETE CASCADE,
  n      int NOT NULL CHECK (n > 0),
  author bigint NOT NULL REFERENCES person,
  body   bytea NOT NULL REFERENCES body,
  at     timestamptz NOT NULL,
  PRIMARY KEY (item, n)
);
CREATE INDEX text_draft_version_body ON text_draft_version (body);
CREATE INDEX text_draft_version_author ON text_draft_version (author);

-- Who has a text open to write in it; the clock is the server's own, and a row is old after seconds.
CREATE TABLE text_writer (
  item   bigint NOT NULL REFERENCES item ON DELETE CASCADE,
  person bigint NOT NULL REFERENCES person,
  at     timestamptz NOT NULL,
  PRIMARY KEY (item, person)
);
CREATE INDEX text_writer_person ON text_writer (person);

GRANT SELECT, INSERT, UPDATE (n) ON text_draft TO polycline_app;
GRANT SELECT, INSERT ON text_draft_version TO polycline_app;
GRANT SELECT, INSERT, UPDATE (at), DELETE ON text_writer TO polycline_app;

-- The versions before the given one, and their texts where no other version says the same. The last of them stay a while: somebody may
-- still be writing on one.
CREATE FUNCTION forget_text_drafts(which_item bigint, before_n int) RETURNS void
LANGUAGE plpgsql SECURITY DEFINER SET search_path TO 'public' AS $$
DECLARE
  gone bytea[];
BEGIN
  WITH old AS (DELETE FROM text_draft_version v WHERE v.item = which_item AND v.n < before_n RETURNING v.body)
  SELECT array_agg(DISTINCT body) INTO gone FROM old;
  DELETE FROM body_file f WHERE f.body = ANY(gone) AND NOT EXISTS (SELECT 1 FROM text_draft_version v WHERE v.body = f.body);
  DELETE FROM body b WHERE b.hash = ANY(gone) AND b.kind = 'draft' AND NOT EXISTS (SELECT 1 FROM text_draft_version v WHERE v.body = b.hash);
END $$;
REVOKE ALL ON FUNCTION forget_text_drafts(bigint, int) FROM PUBLIC;
GRANT EXECUTE ON FUNCTION forget_text_drafts(bigint, int) TO polycline_app;
