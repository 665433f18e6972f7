-- The words of a file that can be searched. A file that has none, or whose words could not be read, has an empty text, so that each is tried
-- once only.
CREATE TABLE file_text (
  file  bytea PRIMARY KEY REFERENCES stored_file ON DELETE CASCADE,
  text  text NOT NULL DEFAULT '' CHECK (length(text) <= 200000),
  words tsvector NOT NULL GENERATED ALWAYS AS (to_tsvector('english', text)) STORED
);
GRANT SELECT, INSERT, UPDATE ON file_text TO polycline_app;

-- The words of several places as if they were one.
CREATE AGGREGATE words_together (tsvector) (SFUNC = tsvector_concat, STYPE = tsvector);
