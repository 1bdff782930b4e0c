-- +goose Up
ALTER TABLE papers ADD COLUMN grain TEXT NOT NULL DEFAULT '';
ALTER TABLE papers ADD COLUMN stiffness TEXT NOT NULL DEFAULT 'ordinary';
ALTER TABLE papers ADD COLUMN sheets_left INTEGER;
ALTER TABLE papers ADD COLUMN origin TEXT NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE papers DROP COLUMN origin;
ALTER TABLE papers DROP COLUMN sheets_left;
ALTER TABLE papers DROP COLUMN stiffness;
ALTER TABLE papers DROP COLUMN grain;
