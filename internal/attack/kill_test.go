package attack

import (
	"context"
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"os"
	"path/filepath"
	"sync"
	"testing"
	"time"

	"tussock/internal/store"
)

const a4 = `{"width":210,"height":297,"unit":"mm","gsm":80,"thickness_mm":0.1}`

// opened is the data of a program that was killed.
func opened(t *testing.T, data string) *store.Store {
	t.Helper()
	s, err := store.Open(t.Context(), data)
	if err != nil {
		t.Fatalf("after the kill: %v", err)
	}
	if bad, err := s.Examine(t.Context()); err != nil || len(bad) > 0 {
		t.Fatalf("after the kill: %v, %v", bad, err)
	}
	return s
}

func closed(t *testing.T, s *store.Store) {
	t.Helper()
	if err := s.Close(); err != nil {
		t.Fatal(err)
	}
}

// Killed while several people log: everything that was acknowledged is there.
func TestKilledInWrites(t *testing.T) {
	data := filepath.Join(t.TempDir(), "t.db")
	r := rand.New(rand.NewPCG(9, 1))
	acknowledged := map[string]bool{}
	for round := range rounds(4, 60) {
		p := begin(t, "serve", "--data", data)
		if round == 0 {
			if status, says := call(t.Context(), "POST", p.url+"/api/v1/builds", `{"pattern":"curlew","sheet":`+a4+`}`); status != 200 {
				t.Fatal(status, says)
			}
		}
		var mu sync.Mutex
		var wg sync.WaitGroup
		ctx, stop := context.WithCancel(t.Context())
		for hand := range 4 {
			wg.Go(func() {
				for i := 0; ctx.Err() == nil; i++ {
					key := fmt.Sprintf("r%d-h%d-%d", round, hand, i)
					status, _ := call(ctx, "POST", p.url+"/api/v1/builds/1/trials",
						fmt.Sprintf(`{"read":{"distance":5},"version":1,"key":%q,"setup":{"sheet":%s}}`, key, a4))
					if status == 200 {
						mu.Lock()
						acknowledged[key] = true
						mu.Unlock()
					}
				}
			})
		}
		time.Sleep(time.Duration(60+r.IntN(250)) * time.Millisecond)
		p.kill()
		stop()
		wg.Wait()
	}
	s := opened(t, data)
	defer closed(t, s)
	lost := 0
	for key := range acknowledged {
		if _, _, _, err := s.TrialByKey(t.Context(), key); err != nil {
			lost++
		}
	}
	note("killed in writes: acknowledged trials", len(acknowledged), len(acknowledged)-lost, lost)
	if lost > 0 || len(acknowledged) < 20 {
		t.Errorf("%d of %d acknowledged trials are lost", lost, len(acknowledged))
	}
}

// Killed while the demo is seeded: the next start has all of it, or makes all of it.
func TestKilledInSeeding(t *testing.T) {
	full := filepath.Join(t.TempDir(), "full.db")
	begin(t, "demo", "--data", full).kill()
	s := opened(t, full)
	all, err := s.BuildsCounted(t.Context())
	if err != nil || len(all) < 10 {
		t.Fatalf("%d builds, %v", len(all), err)
	}
	closed(t, s)
	r := rand.New(rand.NewPCG(9, 2))
	lost, n := 0, rounds(5, 40)
	for range n {
		data := filepath.Join(t.TempDir(), "t.db")
		p := launch(t, "demo", "--data", data)
		time.Sleep(time.Duration(r.IntN(250)) * time.Millisecond)
		p.kill()
		begin(t, "demo", "--data", data).kill()
		s := opened(t, data)
		got, err := s.BuildsCounted(t.Context())
		if err != nil || len(got) != len(all) {
			lost++
			t.Errorf("%d of %d builds, %v", len(got), len(all), err)
		}
		closed(t, s)
	}
	note("killed in seeding", n, n-lost, lost)
}

// Killed while a backup is restored: all is as before, or all is as in the backup.
func TestKilledInRestore(t *testing.T) {
	folder := t.TempDir()
	data := filepath.Join(folder, "t.db")
	p := begin(t, "demo", "--data", data)
	status, backup := call(t.Context(), "GET", p.url+"/api/v1/backup", "")
	if status != 200 {
		t.Fatal(status)
	}
	saved := names(t, p.url)
	p.kill()
	r := rand.New(rand.NewPCG(9, 3))
	lost, n := 0, rounds(4, 40)
	for i := range n {
		p := begin(t, "serve", "--data", data)
		if status, says := call(t.Context(), "POST", p.url+"/api/v1/builds", fmt.Sprintf(`{"pattern":"curlew","name":"after %d","sheet":%s}`, i, a4)); status != 200 {
			t.Fatal(status, says)
		}
		before := names(t, p.url)
		done := make(chan struct{})
		go func() {
			defer close(done)
			call(t.Context(), "POST", p.url+"/api/v1/backup", backup)
		}()
		time.Sleep(time.Duration(r.IntN(160)) * time.Millisecond)
		p.kill()
		<-done
		s := opened(t, data)
		got, err := s.BuildsCounted(t.Context())
		if err != nil {
			t.Fatal(err)
		}
		if len(got) != before && len(got) != saved {
			lost++
			t.Errorf("%d builds, of %d before and %d in the backup", len(got), before, saved)
		}
		closed(t, s)
	}
	note("killed in restore", n, n-lost, lost)
	// What a kill leaves is the data, its log and what was kept, nothing half done.
	entries, err := os.ReadDir(folder)
	if err != nil {
		t.Fatal(err)
	}
	for _, e := range entries {
		if filepath.Ext(e.Name()) == ".incoming" {
			t.Errorf("left behind: %s", e.Name())
		}
	}
}

func names(t *testing.T, url string) int {
	t.Helper()
	status, says := call(t.Context(), "GET", url+"/api/v1/builds", "")
	var list []struct{ Name string }
	if err := json.Unmarshal([]byte(says), &list); err != nil || status != 200 {
		t.Fatal(status, says)
	}
	return len(list)
}
