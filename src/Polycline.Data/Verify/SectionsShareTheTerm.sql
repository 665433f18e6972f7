-- A section and the edition it follows are of the same term.
SELECT format('section %s (%s) is of term %s but follows edition %s of term %s', c.id, c.name, c.term, e.id, e.term)
FROM section c
JOIN edition e ON e.id = c.edition
WHERE c.term <> e.term
