-- How a file is given: to read, or a copy for each student, named by a pattern (null: the usual one).
ALTER TABLE item_file
  ADD COLUMN given text NOT NULL DEFAULT 'read' CHECK (given IN ('read', 'copy')),
  ADD COLUMN copy_name text CHECK (length(copy_name) BETWEEN 1 AND 120);

-- The file that a student's own began as a copy of; null: they brought it. A copy that nobody has worked in can follow a new file.
ALTER TABLE work_file ADD COLUMN copy_of bigint REFERENCES item_file ON DELETE SET NULL;
CREATE INDEX work_file_copy_of ON work_file (copy_of);
GRANT UPDATE (file, copy_of) ON work_file TO polycline_app;

-- What a student has written in their copy since. It becomes a file of its own when it is handed in.
CREATE TABLE copy_text (
  file     bigint PRIMARY KEY REFERENCES work_file ON DELETE CASCADE,
  text     text NOT NULL CHECK (length(text) <= 200000),
  saved_at timestamptz NOT NULL
);
GRANT SELECT, INSERT, UPDATE, DELETE ON copy_text TO polycline_app;

CREATE INDEX draft_item ON draft (item);
CREATE INDEX work_item ON work (item);
