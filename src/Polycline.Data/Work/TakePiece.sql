INSERT INTO work (person, item, section) VALUES (@person, @item, @section)
ON CONFLICT (person, item) DO UPDATE SET section = work.section
RETURNING id
