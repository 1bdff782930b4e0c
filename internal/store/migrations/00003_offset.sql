-- +goose Up
ALTER TABLE trials ADD COLUMN offset_m REAL;

-- +goose Down
ALTER TABLE trials DROP COLUMN offset_m;
