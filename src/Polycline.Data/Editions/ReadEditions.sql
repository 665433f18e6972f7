SELECT e.id, e.ordinal, e.title, e.state, t.name AS term, t.first, t.last, e.carried_from, e.taken_in_at IS NOT NULL AS taken_in, e.ends_on,
       EXISTS (SELECT 1 FROM edition later JOIN item i ON i.edition = later.id JOIN fact f ON f.item = i.id WHERE later.carried_from = e.id) AS gone_on,
       (SELECT count(*) FROM section c WHERE c.edition = e.id AND c.pretend IS NULL)::int AS sections,
       EXISTS (SELECT 1 FROM item i JOIN fact f ON f.item = i.id WHERE i.edition = e.id)
         OR EXISTS (SELECT 1 FROM item i JOIN draft d ON d.item = i.id WHERE i.edition = e.id) AS worked
FROM edition own
JOIN edition e ON e.master = own.master
JOIN term t ON t.id = e.term
WHERE own.id = @edition
ORDER BY e.ordinal DESC;

SELECT t.id, t.name, t.first, t.last
FROM edition own
JOIN term held ON held.id = own.term
JOIN term t ON t.first > held.last
WHERE own.id = @edition
ORDER BY t.first;
