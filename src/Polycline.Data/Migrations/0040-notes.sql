-- What a team notes for itself on a unit, a lesson or an item, under the name that has in every edition. Students never see it.
CREATE TABLE team_note (
  id         bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  edition    bigint NOT NULL REFERENCES edition ON DELETE CASCADE,
  place      uuid NOT NULL,
  -- Left for whoever teaches the course next time.
  next_time  boolean NOT NULL DEFAULT false,
  text       text NOT NULL CHECK (text <> '' AND length(text) <= 2000),
  author     bigint NOT NULL REFERENCES person,
  written_at timestamptz NOT NULL,
  removed_at timestamptz,
  version    bigint NOT NULL DEFAULT 1
);
CREATE INDEX team_note_edition ON team_note (edition);
CREATE INDEX team_note_place ON team_note (place) WHERE next_time AND removed_at IS NULL;
CREATE INDEX team_note_author ON team_note (author);
CREATE TRIGGER team_note_at_rest BEFORE INSERT OR UPDATE ON team_note FOR EACH ROW EXECUTE FUNCTION refuse_resting();
GRANT SELECT, INSERT, UPDATE ON team_note TO polycline_app;

-- A text that speaks of whoever teaches, and of whom: null where nobody here has said so yet.
ALTER TABLE item
  ADD COLUMN about_teacher boolean NOT NULL DEFAULT false,
  ADD COLUMN about_whom bigint REFERENCES person,
  ADD CONSTRAINT item_about_check CHECK (about_teacher OR about_whom IS NULL);
