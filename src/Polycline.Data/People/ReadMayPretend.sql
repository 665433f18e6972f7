SELECT EXISTS (
  SELECT 1
  FROM section c
  JOIN edition e ON e.id = c.edition
  WHERE c.id = @section AND e.master = @master
    AND (EXISTS (SELECT 1 FROM section_teacher st WHERE st.section = c.id AND st.person = @viewer)
      OR EXISTS (SELECT 1 FROM master_member mm WHERE mm.master = e.master AND mm.person = @viewer AND (mm.role = 'lead' OR c.pretend IS NOT NULL))))
