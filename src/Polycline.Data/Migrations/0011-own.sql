-- What is of one section only: it stands in the course's tree, and in that section's plan alone.
ALTER TABLE unit ADD COLUMN section bigint REFERENCES section;
ALTER TABLE lesson ADD COLUMN section bigint REFERENCES section;
ALTER TABLE item ADD COLUMN section bigint REFERENCES section;
