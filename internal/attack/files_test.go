package attack

import (
	"bytes"
	"encoding/binary"
	"math/rand/v2"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"tussock/internal/store"
)

// seeded is a data file with the demo in it, closed whole.
func seeded(t *testing.T) []byte {
	t.Helper()
	data := filepath.Join(t.TempDir(), "t.db")
	begin(t, "demo", "--data", data).kill()
	closed(t, opened(t, data)) // writes its log back
	b, err := os.ReadFile(data)
	if err != nil {
		t.Fatal(err)
	}
	return b
}

func put(t *testing.T, b []byte) string {
	t.Helper()
	path := filepath.Join(t.TempDir(), "t.db")
	if err := os.WriteFile(path, b, 0o600); err != nil {
		t.Fatal(err)
	}
	return path
}

// Files of other programs and of a newer Tussock, and data that are no demo, are refused
// by name and stay to the byte.
func TestForeignFilesAreRefused(t *testing.T) {
	good := seeded(t)
	foreign := bytes.Clone(good)
	binary.BigEndian.PutUint32(foreign[68:], 42)
	real := filepath.Join(t.TempDir(), "real.db")
	p := begin(t, "serve", "--data", real)
	call(t.Context(), "POST", p.url+"/api/v1/builds", `{"pattern":"curlew","sheet":`+a4+`}`)
	p.kill()
	closed(t, opened(t, real))
	mine, err := os.ReadFile(real)
	if err != nil {
		t.Fatal(err)
	}
	n := 0
	for name, c := range map[string]struct {
		file []byte
		args []string
		says string
	}{
		"another program's":      {foreign, []string{"serve"}, "another program"},
		"a text":                 {[]byte(strings.Repeat("Tide tables of the ferry. ", 99)), []string{"serve"}, "not a Tussock"},
		"somebody's, to reset":   {mine, []string{"demo", "--reset"}, "does not hold demo data"},
		"another's, to reset":    {foreign, []string{"demo", "--reset"}, "another program"},
		"a text, to be restored": {[]byte("no"), []string{"demo", "--reset"}, "not a Tussock"},
	} {
		path := put(t, c.file)
		says := launch(t, append(c.args, "--data", path)...).ends(t)
		after, err := os.ReadFile(path)
		if err != nil {
			t.Fatal(err)
		}
		n++
		if !strings.Contains(says, c.says) || !bytes.Equal(after, c.file) || strings.Contains(says, "goroutine") {
			note("files of others", 1, 0, 1)
			t.Errorf("%s: %s; untouched %v", name, says, bytes.Equal(after, c.file))
			continue
		}
		note("files of others", 1, 1, 0)
	}
}

// The demo made anew keeps the old file beside it; a port that is taken, or a file that
// another Tussock has open, changes nothing.
func TestResetTakesItsTimeFirst(t *testing.T) {
	data := filepath.Join(t.TempDir(), "t.db")
	p := begin(t, "demo", "--data", data)
	call(t.Context(), "PATCH", p.url+"/api/v1/builds/1", `{"name":"Mine"}`)
	if says := launch(t, "demo", "--reset", "--data", data).ends(t); !strings.Contains(says, "another Tussock works with") {
		t.Errorf("while it is open: %s", says)
	}
	if _, says := call(t.Context(), "GET", p.url+"/api/v1/builds/1", ""); !strings.Contains(says, "Mine") {
		t.Error("the data of a running Tussock are gone")
	}
	p.kill()
	p = begin(t, "demo", "--reset", "--data", data)
	if _, says := call(t.Context(), "GET", p.url+"/api/v1/builds/1", ""); !strings.Contains(says, "Leaflet Curlew") {
		t.Errorf("anew it holds %s", says)
	}
	p.kill()
	kept, err := filepath.Glob(data + ".before-reset-*")
	if err != nil || len(kept) != 1 {
		t.Fatalf("kept %v, %v", kept, err)
	}
	old := opened(t, kept[0])
	defer closed(t, old)
	if b, err := old.Build(t.Context(), 1); err != nil || b.Name != "Mine" {
		t.Errorf("kept is %+v, %v", b, err)
	}
}

// A file with damaged pages is either served with all that can be read, or refused with
// the copies pointed to; a copy put in its place is whole.
func TestDamagedFiles(t *testing.T) {
	good := seeded(t)
	undamaged := opened(t, put(t, good))
	all, err := undamaged.BuildsCounted(t.Context())
	if err != nil {
		t.Fatal(err)
	}
	closed(t, undamaged)
	whole := len(all)
	r := rand.New(rand.NewPCG(9, 5))
	lost, n := 0, rounds(6, 60)
	for range n {
		bad := bytes.Clone(good)
		for range 1 + r.IntN(40) {
			at := 100 + r.IntN(len(bad)-100)
			bad[at] ^= byte(1 + r.IntN(255))
		}
		path := put(t, bad)
		folder := path + ".copies"
		if err := os.MkdirAll(folder, 0o700); err != nil {
			t.Fatal(err)
		}
		copied := filepath.Join(folder, "2026-11-28.tussock")
		if err := os.WriteFile(copied, good, 0o600); err != nil {
			t.Fatal(err)
		}
		p := launch(t, "serve", "--data", path)
		says := p.first()
		if m := address.FindStringSubmatch(says); m != nil {
			if status, answer := call(t.Context(), "GET", m[1]+"/api/v1/builds", ""); status != 200 {
				lost++
				t.Errorf("served, but the list answers %d %s\n%s", status, answer, p.out)
			}
			p.kill()
			continue
		}
		if !strings.Contains(says, "damaged") || !strings.Contains(says, "tussock restore") || strings.Contains(says, "goroutine") {
			lost++
			t.Errorf("it says %s", says)
		}
		p.kill()
		c := launchPlain(t, "restore", "--data", path, copied)
		if err := c.Run(); err != nil {
			t.Errorf("restoring: %v", err)
		}
		s := opened(t, path)
		if list, err := s.BuildsCounted(t.Context()); err != nil || len(list) != whole {
			lost++
			t.Errorf("%d builds, %v", len(list), err)
		}
		closed(t, s)
	}
	note("damaged files", n, n-lost, lost)
}

// first waits for the address or for the end, and gives what was said until then.
func (r *running) first() string {
	for {
		r.mu.Lock()
		says := r.out.String()
		r.mu.Unlock()
		if address.MatchString(says) {
			return says
		}
		select {
		case <-r.gone:
			r.mu.Lock()
			defer r.mu.Unlock()
			return r.out.String()
		case <-time.After(5 * time.Millisecond):
		}
	}
}

// Data of every earlier schema are opened, brought up to date and whole.
func TestOlderFiles(t *testing.T) {
	good := seeded(t)
	for version := int64(4); version >= 1; version-- {
		path := put(t, good)
		if err := store.BringDown(t.Context(), path, version); err != nil {
			t.Fatal(err)
		}
		p := begin(t, "serve", "--data", path)
		status, says := call(t.Context(), "GET", p.url+"/api/v1/builds/1", "")
		p.kill()
		lost := 0
		if status != 200 || !strings.Contains(says, "Leaflet Curlew") || !strings.Contains(says, `"trials":28`) {
			lost = 1
			t.Errorf("from schema %d: %d %.200s", version, status, says)
		}
		note("files of older schemas", 1, 1-lost, lost)
	}
}
