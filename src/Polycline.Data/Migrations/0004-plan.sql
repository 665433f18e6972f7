-- Texts and whatever else is written once: immutable, keyed by their hash, shared by editions, undo and snapshots.
CREATE TABLE body (
  hash bytea PRIMARY KEY CHECK (length(hash) = 32),
  kind text NOT NULL CHECK (kind IN ('text')),
  data jsonb NOT NULL
);

ALTER TABLE edition ADD COLUMN carried_from bigint REFERENCES edition;
ALTER TABLE unit
  ADD COLUMN gate jsonb,
  ADD COLUMN before text CHECK (before IN ('listed', 'unseen'));
ALTER TABLE lesson ADD COLUMN gate jsonb;
ALTER TABLE item
  ADD COLUMN body bytea REFERENCES body,
  ADD COLUMN opens jsonb,
  ADD COLUMN due jsonb,
  ADD COLUMN closes jsonb,
  ADD COLUMN gate jsonb,
  ADD COLUMN for_whom jsonb,
  ADD COLUMN before text CHECK (before IN ('listed', 'unseen')),
  ADD COLUMN options text[] NOT NULL DEFAULT '{}',
  ADD COLUMN picks int NOT NULL DEFAULT 1 CHECK (picks >= 1);
ALTER TABLE section
  ADD COLUMN slots jsonb NOT NULL DEFAULT '[]',
  ADD COLUMN succeeds bigint REFERENCES section;

GRANT SELECT, INSERT ON body TO polycline_app;
GRANT INSERT ON edition, section, section_teacher TO polycline_app;
GRANT UPDATE (state) ON edition TO polycline_app;
GRANT UPDATE (edition) ON section TO polycline_app;

-- A lesson that goes to another unit takes its items along: both are there when all is done.
ALTER TABLE item DROP CONSTRAINT item_unit_lesson_fkey;
ALTER TABLE item ADD CONSTRAINT item_unit_lesson_fkey FOREIGN KEY (unit, lesson) REFERENCES lesson (unit, id) DEFERRABLE INITIALLY DEFERRED;
