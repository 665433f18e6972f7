-- What a choice offers, beside the names of its options: what they are called and about, and for how many there is room.
ALTER TABLE item ADD COLUMN offered jsonb;
