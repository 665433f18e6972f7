WITH stored AS (
  INSERT INTO stored_file (hash, size, type, stored_at) VALUES (@hash, @size, @type, @at)
  ON CONFLICT DO NOTHING
  RETURNING hash
), parts AS (
  INSERT INTO file_part (file, n, chunk) SELECT s.hash, p.n, p.chunk FROM stored s, upload_part p WHERE p.upload = @id
), let_go AS (
  DELETE FROM upload_part WHERE upload = @id
)
UPDATE upload SET file = @hash, received = size WHERE id = @id
