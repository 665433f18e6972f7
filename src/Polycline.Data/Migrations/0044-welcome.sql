-- The welcome unit is open from the first day, for everyone, whenever they join: nothing in it opens later, closes or waits for a condition.
ALTER TABLE unit ADD COLUMN welcome boolean NOT NULL DEFAULT false CHECK (NOT welcome OR section IS NULL);
