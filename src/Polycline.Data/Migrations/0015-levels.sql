-- What the team calls the three levels of its course; null: unit, lesson and item. It is the edition's, so that one at rest
-- keeps the words its students knew.
ALTER TABLE edition ADD COLUMN levels jsonb;

GRANT UPDATE (levels) ON edition TO polycline_app;
