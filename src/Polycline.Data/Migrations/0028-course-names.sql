-- A course's title and subject are its editions' in common, and change through the log of whichever edition they are changed in.
ALTER TABLE master ADD COLUMN subject text NOT NULL DEFAULT '' CHECK (length(subject) <= 120);
ALTER TABLE master ADD COLUMN version bigint NOT NULL DEFAULT 1;
GRANT UPDATE (title, subject, version) ON master TO polycline_app;

CREATE FUNCTION raise_editions() RETURNS trigger LANGUAGE plpgsql SECURITY DEFINER SET search_path TO 'public' AS $$
BEGIN
  UPDATE edition SET version = version + 1 WHERE master = NEW.id;
  RETURN NULL;
END $$;
CREATE TRIGGER raise_editions AFTER UPDATE OF title, subject ON master FOR EACH ROW EXECUTE FUNCTION raise_editions();
