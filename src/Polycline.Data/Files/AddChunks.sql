WITH sent AS (
  SELECT * FROM unnest(@hashes, @chunks) WITH ORDINALITY one (hash, bytes, place)
), kept AS (
  INSERT INTO file_chunk (hash, bytes) SELECT DISTINCT ON (hash) hash, bytes FROM sent ORDER BY hash
  ON CONFLICT DO NOTHING
), listed AS (
  INSERT INTO upload_part (upload, n, chunk) SELECT @id, @first + place - 1, hash FROM sent
)
UPDATE upload SET received = received + @more WHERE id = @id
