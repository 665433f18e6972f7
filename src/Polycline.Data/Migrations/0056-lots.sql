-- What an attempt is drawn and mixed by: nobody who takes a quiz can know or guess it. Attempts made before keep what they were put.
ALTER TABLE quiz_attempt ADD COLUMN lot text;
UPDATE quiz_attempt SET lot = id::text;
ALTER TABLE quiz_attempt
  ALTER COLUMN lot SET NOT NULL,
  ALTER COLUMN lot SET DEFAULT gen_random_uuid()::text;
