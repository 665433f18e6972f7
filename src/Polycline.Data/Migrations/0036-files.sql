-- Files are stored in chunks, each once, under its own hash. A file is the list of its chunks and is kept under the hash of that list, so
-- the same bytes are never stored twice.
CREATE TABLE file_chunk (
  hash  bytea PRIMARY KEY CHECK (length(hash) = 32),
  bytes bytea NOT NULL CHECK (length(bytes) BETWEEN 1 AND 262144)
);
-- Pictures and films do not get smaller by being compressed again.
ALTER TABLE file_chunk ALTER COLUMN bytes SET STORAGE EXTERNAL;

CREATE TABLE stored_file (
  hash         bytea PRIMARY KEY CHECK (length(hash) = 32),
  size         bigint NOT NULL CHECK (size > 0),
  -- What the bytes are, whatever the file is called.
  type         text NOT NULL CHECK (type <> ''),
  stored_at    timestamptz NOT NULL,
  -- Since when nothing has named it; null: something names it, or no sweep has looked yet.
  unused_since timestamptz
);

CREATE TABLE file_part (
  file  bytea NOT NULL REFERENCES stored_file ON DELETE CASCADE,
  n     int NOT NULL CHECK (n >= 0),
  chunk bytea NOT NULL REFERENCES file_chunk,
  PRIMARY KEY (file, n)
);
CREATE INDEX file_part_chunk ON file_part (chunk);

-- A file that somebody is sending, or has sent and can now use.
CREATE TABLE upload (
  id        uuid PRIMARY KEY,
  person    bigint NOT NULL REFERENCES person,
  name      text NOT NULL CHECK (name <> '' AND length(name) <= 200),
  size      bigint NOT NULL CHECK (size > 0),
  received  bigint NOT NULL DEFAULT 0 CHECK (received BETWEEN 0 AND size),
  begun_at  timestamptz NOT NULL,
  file      bytea REFERENCES stored_file
);
CREATE INDEX upload_person ON upload (person);
CREATE INDEX upload_file ON upload (file);

CREATE TABLE upload_part (
  upload uuid NOT NULL REFERENCES upload ON DELETE CASCADE,
  n      int NOT NULL CHECK (n >= 0),
  chunk  bytea NOT NULL REFERENCES file_chunk,
  PRIMARY KEY (upload, n)
);
CREATE INDEX upload_part_chunk ON upload_part (chunk);

-- A file of an item. It belongs to a section if its item does. One that replaces another names it.
ALTER TABLE item ADD UNIQUE (edition, id);
CREATE TABLE item_file (
  id         bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  edition    bigint NOT NULL REFERENCES edition,
  item       bigint NOT NULL,
  section    bigint REFERENCES section,
  rank       text COLLATE "C" NOT NULL,
  name       text NOT NULL CHECK (name <> '' AND length(name) <= 200),
  file       bytea NOT NULL REFERENCES stored_file,
  replaces   bigint REFERENCES item_file,
  brought_by bigint NOT NULL REFERENCES person,
  brought_at timestamptz NOT NULL,
  removed_at timestamptz,
  version    bigint NOT NULL DEFAULT 1,
  FOREIGN KEY (edition, item) REFERENCES item (edition, id) ON DELETE CASCADE
);
CREATE INDEX item_file_item ON item_file (item);
CREATE INDEX item_file_edition ON item_file (edition);
CREATE INDEX item_file_file ON item_file (file);
CREATE TRIGGER item_file_at_rest BEFORE INSERT OR UPDATE ON item_file FOR EACH ROW EXECUTE FUNCTION refuse_resting();

GRANT SELECT, INSERT ON file_chunk, stored_file, file_part TO polycline_app;
GRANT SELECT, INSERT, UPDATE, DELETE ON upload, upload_part TO polycline_app;
GRANT SELECT, INSERT, UPDATE ON item_file TO polycline_app;

-- A file that a student brought to an item. Whose it is is said by the draft or the hand-in that lists it.
CREATE TABLE work_file (
  id         bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  name       text NOT NULL CHECK (name <> '' AND length(name) <= 200),
  file       bytea NOT NULL REFERENCES stored_file,
  brought_at timestamptz NOT NULL
);
CREATE INDEX work_file_file ON work_file (file);
GRANT SELECT, INSERT ON work_file TO polycline_app;

-- What a student writes or hands in beside the text: files in their order, the addresses of links, the dated entries of a log. Null: none.
ALTER TABLE draft ADD COLUMN files bigint[], ADD COLUMN links text[], ADD COLUMN entries jsonb;
ALTER TABLE work_version ADD COLUMN files bigint[], ADD COLUMN links text[], ADD COLUMN entries jsonb;

-- The pictures in a text: whoever may read the text may see them.
CREATE TABLE body_file (
  body bytea NOT NULL REFERENCES body,
  file bytea NOT NULL REFERENCES stored_file,
  PRIMARY KEY (body, file)
);
CREATE INDEX body_file_file ON body_file (file);
GRANT SELECT, INSERT ON body_file TO polycline_app;

-- Whether anything names a file.
CREATE FUNCTION file_is_used(which bytea) RETURNS boolean LANGUAGE sql STABLE SET search_path TO 'public' AS $$
  SELECT EXISTS (SELECT 1 FROM upload u WHERE u.file = which) OR EXISTS (SELECT 1 FROM item_file f WHERE f.file = which)
    OR EXISTS (SELECT 1 FROM work_file f WHERE f.file = which) OR EXISTS (SELECT 1 FROM body_file f WHERE f.file = which)
$$;

-- Deletes uploads left unfinished for a day or unused for a week, and files that students removed from drafts a day ago or more. A file that
-- nothing has named for a month goes, and its bytes with it.
CREATE FUNCTION sweep_files(at timestamptz) RETURNS int LANGUAGE plpgsql SECURITY DEFINER SET search_path TO 'public' AS $$
DECLARE
  uploads int;
  files int;
BEGIN
  -- Nobody is to begin to use a chunk while it is being deleted.
  LOCK TABLE upload IN EXCLUSIVE MODE;
  DELETE FROM upload WHERE begun_at < sweep_files.at - CASE WHEN file IS NULL THEN interval '1 day' ELSE interval '7 days' END;
  GET DIAGNOSTICS uploads = ROW_COUNT;
  DELETE FROM work_file w WHERE w.brought_at < sweep_files.at - interval '1 day'
    AND w.id NOT IN (SELECT unnest(d.files) FROM draft d WHERE d.files IS NOT NULL
                     UNION ALL SELECT unnest(v.files) FROM work_version v WHERE v.files IS NOT NULL)
    -- Two accounts that were joined may be separated again.
    AND NOT EXISTS (SELECT 1 FROM person_join j WHERE j.separated_at IS NULL);
  UPDATE stored_file s SET unused_since = CASE WHEN s.unused_since IS NULL THEN sweep_files.at END
  WHERE (s.unused_since IS NULL) = NOT file_is_used(s.hash);
  DELETE FROM stored_file s WHERE s.unused_since < sweep_files.at - interval '30 days' AND NOT file_is_used(s.hash);
  GET DIAGNOSTICS files = ROW_COUNT;
  IF uploads + files > 0 THEN
    DELETE FROM file_chunk c
    WHERE NOT EXISTS (SELECT 1 FROM file_part p WHERE p.chunk = c.hash) AND NOT EXISTS (SELECT 1 FROM upload_part p WHERE p.chunk = c.hash);
  END IF;
  RETURN files;
END $$;
REVOKE ALL ON FUNCTION sweep_files(timestamptz) FROM PUBLIC;
GRANT EXECUTE ON FUNCTION sweep_files(timestamptz) TO polycline_app;

-- Erases every file that somebody brought, name and bytes, and their links and entries; bytes that somebody else brought too stay theirs.
CREATE FUNCTION erase_files(which bigint) RETURNS void LANGUAGE plpgsql SECURITY DEFINER SET search_path TO 'public' AS $$
DECLARE
  listed bigint[];
  hashes bytea[];
BEGIN
  LOCK TABLE upload IN EXCLUSIVE MODE;
  SELECT coalesce(array_agg(DISTINCT f), '{}') INTO listed FROM (
    SELECT unnest(d.files) FROM draft d WHERE d.person = which
    UNION SELECT unnest(v.files) FROM work_version v JOIN work w ON w.id = v.work WHERE w.person = which) theirs (f);
  SELECT coalesce(array_agg(DISTINCT h), '{}') INTO hashes FROM (
    SELECT w.file FROM work_file w WHERE w.id = ANY(listed)
    UNION SELECT u.file FROM upload u WHERE u.person = which AND u.file IS NOT NULL) theirs (h);
  UPDATE work_version v SET files = NULL, links = NULL, entries = NULL FROM work w WHERE w.id = v.work AND w.person = which;
  UPDATE draft d SET files = NULL, links = NULL, entries = NULL WHERE d.person = which;
  DELETE FROM work_file w WHERE w.id = ANY(listed);
  DELETE FROM upload u WHERE u.person = which;
  DELETE FROM stored_file s WHERE s.hash = ANY(hashes) AND NOT file_is_used(s.hash);
  DELETE FROM file_chunk c
  WHERE NOT EXISTS (SELECT 1 FROM file_part p WHERE p.chunk = c.hash) AND NOT EXISTS (SELECT 1 FROM upload_part p WHERE p.chunk = c.hash);
END $$;
REVOKE ALL ON FUNCTION erase_files(bigint) FROM PUBLIC;
GRANT EXECUTE ON FUNCTION erase_files(bigint) TO polycline_app;
