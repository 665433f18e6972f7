-- A group and who is in it are made in one go, so its number is known before it is.
GRANT USAGE ON SEQUENCE student_group_id_seq TO polycline_app;
