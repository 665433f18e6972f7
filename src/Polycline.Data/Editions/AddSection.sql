WITH made AS (
  INSERT INTO section (name, letter, term, edition, slots, succeeds)
  SELECT @Name, @Letter, @term, @edition, c.slots, c.id
  FROM section c
  WHERE c.id = @succeeds
  RETURNING id
)
INSERT INTO section_teacher (section, person)
SELECT made.id, st.person
FROM made, section_teacher st
WHERE st.section = @succeeds
