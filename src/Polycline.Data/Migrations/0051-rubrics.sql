-- Rubrics, written once like a text: a mark keeps the one it was made with.
ALTER TABLE body DROP CONSTRAINT body_kind_check;
ALTER TABLE body ADD CONSTRAINT body_kind_check CHECK (kind IN ('text', 'draft', 'quiz', 'rubric'));
ALTER TABLE item ADD COLUMN rubric bytea REFERENCES body;
CREATE INDEX item_rubric ON item (rubric) WHERE rubric IS NOT NULL;
