-- Who is reading a piece of work, so that two do not read the same one. It is forgotten when the piece is given back, or after a while.
CREATE TABLE reader (
  item bigint NOT NULL REFERENCES item ON DELETE CASCADE,
  person bigint NOT NULL REFERENCES person,
  by bigint NOT NULL REFERENCES person,
  at timestamptz NOT NULL,
  PRIMARY KEY (item, person)
);
GRANT SELECT, INSERT, UPDATE, DELETE ON reader TO polycline_app;
