-- What is ready can go back by itself: at a moment, or once everything of its item that waits in the section is ready.
ALTER TABLE ready_mark ADD COLUMN goes_at timestamptz;
ALTER TABLE ready_mark ADD COLUMN with_all boolean NOT NULL DEFAULT false;
CREATE INDEX ready_mark_later ON ready_mark (goes_at) WHERE goes_at IS NOT NULL OR with_all;
