-- +goose Up
-- Packs of one's own: what toys are filled with. Those that ship are in the program.
CREATE TABLE packs (
    id         INTEGER PRIMARY KEY,
    body       TEXT NOT NULL,
    approved   INTEGER NOT NULL DEFAULT 0,
    created_at TEXT NOT NULL,
    deleted_at TEXT
) STRICT;
-- Pictures of one's own, by what they hold: the same picture is kept once.
CREATE TABLE images (
    name       TEXT PRIMARY KEY,
    body       BLOB NOT NULL,
    created_at TEXT NOT NULL
) STRICT;

-- +goose Down
DROP TABLE images;
DROP TABLE packs;
