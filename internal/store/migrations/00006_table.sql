-- +goose Up
-- The tweak that lies on the table; 0 is the newest. Tweaks that were withdrawn have their
-- number below nought.
ALTER TABLE builds ADD COLUMN at INTEGER NOT NULL DEFAULT 0;
-- The paper in the printer.
ALTER TABLE settings ADD COLUMN page TEXT NOT NULL DEFAULT 'auto';

-- +goose Down
ALTER TABLE settings DROP COLUMN page;
ALTER TABLE builds DROP COLUMN at;
