-- How an item is marked; null: in words alone. And what was given, with how it was marked then.
ALTER TABLE item ADD COLUMN marked jsonb;
ALTER TABLE feedback ADD COLUMN mark jsonb;
