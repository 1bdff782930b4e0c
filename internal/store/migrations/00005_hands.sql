-- +goose Up
-- "Tuss": files of another program are told apart by it.
PRAGMA application_id = 1416983411;
-- What lies on the table is counted up when it changes, knob by knob.
ALTER TABLE builds ADD COLUMN version INTEGER NOT NULL DEFAULT 1;
ALTER TABLE builds ADD COLUMN touched TEXT NOT NULL DEFAULT '{}';
-- A trial that is sent twice is kept once.
ALTER TABLE trials ADD COLUMN key TEXT;
CREATE UNIQUE INDEX trials_by_key ON trials (key) WHERE key IS NOT NULL;
CREATE INDEX tweaks_by_build ON tweaks (build_id);
CREATE INDEX builds_by_parent ON builds (parent_id);
-- What the data are, such as "demo".
CREATE TABLE marks (name TEXT PRIMARY KEY, value TEXT NOT NULL) STRICT;
-- Rows that could not be read when the file was opened, as they were.
CREATE TABLE set_aside (
    id    INTEGER PRIMARY KEY,
    what  TEXT NOT NULL,
    row   TEXT NOT NULL,
    why   TEXT NOT NULL,
    at    TEXT NOT NULL
) STRICT;
-- Devices of the hall that were let in; the token is kept as its hash.
CREATE TABLE devices (
    id        INTEGER PRIMARY KEY,
    name      TEXT NOT NULL,
    token     TEXT NOT NULL UNIQUE,
    address   TEXT NOT NULL,
    joined_at TEXT NOT NULL,
    seen_at   TEXT NOT NULL
) STRICT;

-- +goose Down
DROP TABLE devices;
DROP TABLE set_aside;
DROP TABLE marks;
DROP INDEX builds_by_parent;
DROP INDEX tweaks_by_build;
DROP INDEX trials_by_key;
ALTER TABLE trials DROP COLUMN key;
ALTER TABLE builds DROP COLUMN touched;
ALTER TABLE builds DROP COLUMN version;
PRAGMA application_id = 0;
