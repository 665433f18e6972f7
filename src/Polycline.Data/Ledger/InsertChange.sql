INSERT INTO change (batch, n, tbl, key, before, after)
VALUES (@batch, @n, @tbl, @key::jsonb, @before::jsonb, @after::jsonb)
