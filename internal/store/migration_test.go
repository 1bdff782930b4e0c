package store

import (
	"maps"
	"path/filepath"
	"testing"

	"github.com/jmoiron/sqlx"
)

// Throws that were kept before readings had names come through with every reading, and
// with none that was not taken.
func TestThrowsOfTheFirstSchemas(t *testing.T) {
	path := filepath.Join(t.TempDir(), "old.tussock")
	if err := BringDown(t.Context(), path, 3); err != nil {
		t.Fatal(err)
	}
	db := sqlx.MustOpen("sqlite", dsn(path, "immediate"))
	for _, q := range []string{
		`INSERT INTO builds (id, pattern, name, created_at, updated_at) VALUES (1, 'curlew', 'Old', '2026-01-01T00:00:00Z', '2026-01-01T00:00:00Z')`,
		`INSERT INTO tweaks (id, build_id, no, setup, created_at) VALUES (1, 1, 1, '{"sheet":{},"knobs":{}}', '2026-01-01T00:00:00Z')`,
		`INSERT INTO trials (tweak_id, distance_m, time_s, throw_height_m, offset_m, seen, at) VALUES (1, 7.125, 0, 1.6, -0.5, '["glided"]', '2026-01-01T00:01:00Z')`,
		`INSERT INTO trials (tweak_id, distance_m, note, at) VALUES (1, 0, 'hit the pillar', '2026-01-01T00:02:00Z')`,
		`INSERT INTO trials (tweak_id, seen, at) VALUES (1, '["dived"]', '2026-01-01T00:03:00Z')`,
	} {
		if _, err := db.Exec(q); err != nil {
			t.Fatal(err)
		}
	}
	if err := db.Close(); err != nil {
		t.Fatal(err)
	}
	s := openAt(t, path)
	defer closed(t, s)
	b, err := s.Build(t.Context(), 1)
	if err != nil {
		t.Fatal(err)
	}
	got := b.Tweaks[0].Trials
	for i, want := range []map[string]float64{{"distance": 7.125, "time": 0, "from": 1.6, "aside": -0.5}, {"distance": 0}, {}} {
		if !maps.Equal(got[i].Read, want) {
			t.Errorf("trial %d: %v, want %v", i, got[i].Read, want)
		}
	}
	if got[0].Seen[0] != "glided" || got[1].Note != "hit the pillar" || got[2].Kind != "" {
		t.Errorf("%+v", got)
	}
}
