-- How a course adds scores up; null: all points together, and what is missing is left out.
ALTER TABLE edition ADD COLUMN adding_up jsonb;
GRANT UPDATE (adding_up) ON edition TO polycline_app;
