-- +goose Up
-- The girth of the finger that toys go on, mm; 0 where nobody measured one.
ALTER TABLE settings ADD COLUMN finger_mm REAL NOT NULL DEFAULT 0;

-- +goose Down
ALTER TABLE settings DROP COLUMN finger_mm;
