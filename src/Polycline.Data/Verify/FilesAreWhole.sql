-- Every chunk is what it is kept under, and every file has all of its chunks.
SELECT format('chunk %s is not what it was', encode(hash, 'hex')) FROM file_chunk WHERE sha256(bytes) <> hash
UNION ALL
SELECT format('file %s has %s of its %s bytes', encode(s.hash, 'hex'), coalesce(sum(length(c.bytes)), 0), s.size)
FROM stored_file s
LEFT JOIN file_part p ON p.file = s.hash
LEFT JOIN file_chunk c ON c.hash = p.chunk
GROUP BY s.hash, s.size
HAVING coalesce(sum(length(c.bytes)), 0) <> s.size OR count(p.n) <> coalesce(max(p.n), -1) + 1
