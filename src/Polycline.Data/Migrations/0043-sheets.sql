-- A file can be given to write in together: each section has one sheet of an item.
ALTER TABLE item_file DROP CONSTRAINT item_file_given_check;
ALTER TABLE item_file ADD CHECK (given IN ('read', 'copy', 'together'));

-- A sheet that a section writes in together: blocks in order, each with all it ever said and who said it.
CREATE TABLE sheet (
  id       bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  item     bigint NOT NULL REFERENCES item ON DELETE CASCADE,
  section  bigint NOT NULL REFERENCES section ON DELETE CASCADE,
  begun_at timestamptz NOT NULL,
  UNIQUE (item, section)
);

CREATE TABLE sheet_block (
  id    bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  sheet bigint NOT NULL REFERENCES sheet ON DELETE CASCADE,
  rank  text COLLATE "C" NOT NULL
);
CREATE INDEX sheet_block_sheet ON sheet_block (sheet);

-- Without an author: it stood in the file. Without text: it was taken out.
CREATE TABLE sheet_block_version (
  block  bigint NOT NULL REFERENCES sheet_block ON DELETE CASCADE,
  n      int NOT NULL CHECK (n > 0),
  base   int NOT NULL CHECK (base BETWEEN 0 AND n - 1),
  author bigint REFERENCES person,
  text   text NOT NULL CHECK (length(text) <= 3000),
  at     timestamptz NOT NULL,
  PRIMARY KEY (block, n)
);
CREATE INDEX sheet_block_version_author ON sheet_block_version (author);

GRANT SELECT, INSERT ON sheet, sheet_block, sheet_block_version TO polycline_app;
-- Of a sheet nothing is changed; the grant lets two who write at once wait for one another.
GRANT UPDATE (begun_at) ON sheet TO polycline_app;

-- What a section's students did with some items hangs on others from now on. Nothing is added and nothing is lost.
CREATE OR REPLACE FUNCTION move_work(which_section bigint, from_items bigint[], to_items bigint[]) RETURNS void
LANGUAGE plpgsql SECURITY DEFINER SET search_path TO 'public' AS $$
BEGIN
  UPDATE fact f SET item = m.there FROM unnest(from_items, to_items) m (here, there) WHERE f.item = m.here AND f.section = which_section;
  UPDATE work w SET item = m.there FROM unnest(from_items, to_items) m (here, there) WHERE w.item = m.here AND w.section = which_section;
  UPDATE opened o SET item = m.there FROM unnest(from_items, to_items) m (here, there) WHERE o.item = m.here AND o.section = which_section;
  UPDATE sheet s SET item = m.there FROM unnest(from_items, to_items) m (here, there) WHERE s.item = m.here AND s.section = which_section
    AND NOT EXISTS (SELECT 1 FROM sheet other WHERE other.item = m.there AND other.section = which_section);
  UPDATE draft d SET item = m.there FROM unnest(from_items, to_items) m (here, there)
  WHERE d.item = m.here AND EXISTS (SELECT 1 FROM enrolment n WHERE n.person = d.person AND n.section = which_section)
    AND NOT EXISTS (SELECT 1 FROM draft other WHERE other.person = d.person AND other.item = m.there);
END $$;

-- What somebody wrote in sheets is erased; that they wrote, and when, stays and names nobody.
CREATE FUNCTION erase_sheets(which bigint) RETURNS void LANGUAGE sql SECURITY DEFINER SET search_path TO 'public' AS $$
  UPDATE sheet_block_version SET text = '' WHERE author = which
$$;
REVOKE ALL ON FUNCTION erase_sheets(bigint) FROM PUBLIC;
GRANT EXECUTE ON FUNCTION erase_sheets(bigint) TO polycline_app;
