-- +goose Up
-- Readings by name, so that every way of moving has its own.
ALTER TABLE trials ADD COLUMN kind TEXT NOT NULL DEFAULT '';
ALTER TABLE trials ADD COLUMN readings TEXT NOT NULL DEFAULT '{}';
ALTER TABLE trials ADD COLUMN under TEXT NOT NULL DEFAULT '{}';
-- A patch with null takes the name out again: what was not read has no entry.
UPDATE trials SET readings = json_patch('{}', json_object('distance', distance_m, 'time', time_s, 'aside', offset_m, 'from', throw_height_m));
ALTER TABLE trials DROP COLUMN distance_m;
ALTER TABLE trials DROP COLUMN time_s;
ALTER TABLE trials DROP COLUMN offset_m;
ALTER TABLE trials DROP COLUMN throw_height_m;

-- +goose Down
ALTER TABLE trials ADD COLUMN distance_m REAL;
ALTER TABLE trials ADD COLUMN time_s REAL;
ALTER TABLE trials ADD COLUMN offset_m REAL;
ALTER TABLE trials ADD COLUMN throw_height_m REAL;
UPDATE trials SET distance_m = json_extract(readings, '$.distance'), time_s = json_extract(readings, '$.time'),
    offset_m = json_extract(readings, '$.aside'), throw_height_m = json_extract(readings, '$.from');
ALTER TABLE trials DROP COLUMN kind;
ALTER TABLE trials DROP COLUMN readings;
ALTER TABLE trials DROP COLUMN under;
