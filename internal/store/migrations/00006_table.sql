-- +goose Up
-- The tweak that lies on the table; 0 is the newest. Tweaks that were withdrawn have their
-- number below nought.
ALTER TABLE builds ADD COLUMN at INTEGER NOT NULL DEFAULT 0;

-- +goose Down
ALTER TABLE builds DROP COLUMN at;
