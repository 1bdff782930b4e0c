-- +goose Up
CREATE TABLE papers (
    id           INTEGER PRIMARY KEY,
    name         TEXT NOT NULL,
    sheet        TEXT NOT NULL,
    deleted_at   TEXT
) STRICT;

CREATE TABLE builds (
    id           INTEGER PRIMARY KEY,
    pattern      TEXT NOT NULL,
    name         TEXT NOT NULL,
    parent_id    INTEGER REFERENCES builds(id),
    parent_tweak INTEGER,
    step         INTEGER NOT NULL DEFAULT 0,
    draft        TEXT,
    created_at   TEXT NOT NULL,
    updated_at   TEXT NOT NULL,
    deleted_at   TEXT
) STRICT;

CREATE TABLE tweaks (
    id         INTEGER PRIMARY KEY,
    build_id   INTEGER NOT NULL REFERENCES builds(id),
    no         INTEGER NOT NULL,
    setup      TEXT NOT NULL,
    why        TEXT NOT NULL DEFAULT '',
    created_at TEXT NOT NULL,
    UNIQUE (build_id, no)
) STRICT;

CREATE TABLE trials (
    id             INTEGER PRIMARY KEY,
    tweak_id       INTEGER NOT NULL REFERENCES tweaks(id),
    distance_m     REAL,
    time_s         REAL,
    seen           TEXT NOT NULL DEFAULT '[]',
    thrower        TEXT NOT NULL DEFAULT '',
    place          TEXT NOT NULL DEFAULT '',
    air            TEXT NOT NULL DEFAULT '',
    throw_height_m REAL,
    note           TEXT NOT NULL DEFAULT '',
    at             TEXT NOT NULL,
    deleted_at     TEXT
) STRICT;
CREATE INDEX trials_by_tweak ON trials (tweak_id, at);

CREATE TABLE settings (
    id    INTEGER PRIMARY KEY CHECK (id = 1),
    units TEXT NOT NULL,
    hand  TEXT NOT NULL,
    theme TEXT NOT NULL
) STRICT;
INSERT INTO settings VALUES (1, 'mm', 'right', 'auto');

-- +goose Down
DROP TABLE settings;
DROP TABLE trials;
DROP TABLE tweaks;
DROP TABLE builds;
DROP TABLE papers;
