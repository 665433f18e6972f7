-- The same files once more, for somebody who hands them in too: in their order, each with what was written in it.
WITH listed AS (
  SELECT f.id, f.name, f.file, f.brought_at, t.place, nextval('work_file_id_seq') AS own
  FROM unnest(@files) WITH ORDINALITY t (id, place) JOIN work_file f ON f.id = t.id
), made AS (
  INSERT INTO work_file (id, name, file, brought_at) OVERRIDING SYSTEM VALUE SELECT own, name, file, brought_at FROM listed
), written AS (
  INSERT INTO copy_text (file, text, saved_at) SELECT l.own, c.text, c.saved_at FROM listed l JOIN copy_text c ON c.file = l.id
)
SELECT own FROM listed ORDER BY place
