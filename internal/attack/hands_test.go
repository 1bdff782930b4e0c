package attack

import (
	"context"
	"encoding/json"
	"fmt"
	"maps"
	"math/rand/v2"
	"net/http"
	"net/http/httptest"
	"strings"
	"sync"
	"testing"

	"tussock/internal/demo"
	"tussock/internal/web"
	weball "tussock/internal/web/hall"
)

// view is what a page shows of a build.
type view struct {
	Version int
	Draft   bool
	Setup   struct{ Knobs map[string]float64 }
	Tweaks  []struct {
		No     int
		Setup  struct{ Knobs map[string]float64 }
		Trials []struct{ ID int64 }
	}
}

// Several devices at one build, all at once and each with what it saw some time ago: nothing
// breaks, and every trial that was acknowledged lies at a tweak with just the knobs that its
// page showed. Long because it is one script of what hands do.
func TestManyHandsOnOneBuild(t *testing.T) {
	home, _ := hall(t)
	shown := map[int64]map[string]float64{} // by trial
	var mu sync.Mutex
	var wg sync.WaitGroup
	broken, moved := 0, 0
	for hand := range 5 {
		r := rand.New(rand.NewPCG(uint64(hand), 11))
		wg.Go(func() {
			var v view
			look := func() {
				_, says := call(t.Context(), "GET", home+"/api/v1/builds/1", "")
				v = view{}
				if err := json.Unmarshal([]byte(says), &v); err != nil {
					t.Error(err)
				}
			}
			look()
			for range rounds(30, 300) {
				method, path, body := "", "", ""
				seen := maps.Clone(v.Setup.Knobs)
				switch r.IntN(8) {
				case 0:
					look()
					continue
				case 1, 2, 3:
					knob := []string{"curl", "wing", "rudder"}[r.IntN(3)]
					at := float64(r.IntN(6))
					if knob == "wing" {
						at += 80
					}
					method, path, body = "PATCH", "draft", fmt.Sprintf(`{"version":%d,"knobs":{%q:%v}}`, v.Version, knob, at)
				case 4:
					method, path, body = "POST", "tweaks", fmt.Sprintf(`{"version":%d}`, v.Version)
				case 5:
					method, path = "DELETE", fmt.Sprintf("draft?version=%d", v.Version)
				default:
					if r.IntN(3) == 0 { // moved on the page, and not kept
						seen["curl"] = float64(r.IntN(6))
					}
					knobs, err := json.Marshal(seen)
					if err != nil {
						t.Error(err)
					}
					method, path, body = "POST", "trials", fmt.Sprintf(`{"read":{"distance":5},"version":%d,"setup":{"sheet":%s,"knobs":%s}}`, v.Version, a4, knobs)
				}
				status, says := call(t.Context(), method, home+"/api/v1/builds/1/"+path, body)
				mu.Lock()
				switch {
				case status >= 500 || status == 0:
					broken++
					t.Errorf("%s %s: %d %s", method, path, status, says)
				case status == 200 && path == "trials":
					var logged struct{ Trial int64 }
					if err := json.Unmarshal([]byte(says), &logged); err != nil {
						t.Error(err)
					}
					shown[logged.Trial] = seen
				case status == 200:
					moved++
				}
				mu.Unlock()
			}
		})
	}
	wg.Wait()
	_, says := call(t.Context(), "GET", home+"/api/v1/builds/1", "")
	var v view
	if err := json.Unmarshal([]byte(says), &v); err != nil {
		t.Fatal(err)
	}
	at := map[int64]map[string]float64{}
	for i, tw := range v.Tweaks {
		if tw.No != i+1 {
			t.Errorf("tweak %d is numbered %d", i+1, tw.No)
		}
		for _, x := range tw.Trials {
			at[x.ID] = tw.Setup.Knobs
		}
	}
	lost := 0
	for id, knobs := range shown {
		if !maps.Equal(at[id], knobs) {
			lost++
			t.Errorf("tried with %v, booked on %v", knobs, at[id])
		}
	}
	note("many hands: trials booked where they were tried", len(shown), len(shown)-lost, lost)
	note("many hands: moves", moved+broken, moved, broken)
	if len(shown) < 5 || moved < 5 {
		t.Errorf("only %d trials and %d moves were taken", len(shown), moved)
	}
}

// The door: guessed codes, made-up cookies, guests who want more than guests may.
// Long because all is tried at the same door.
func TestDoor(t *testing.T) {
	_, s := hall(t)
	if err := demo.Seed(t.Context(), s); err == nil {
		t.Fatal("it is seeded twice")
	}
	sharing, err := weball.NewSharing(t.Context(), "http://192.168.7.2:7340", s)
	if err != nil {
		t.Fatal(err)
	}
	h, err := web.NewShared(s, nil, sharing)
	if err != nil {
		t.Fatal(err)
	}
	ask := func(from, method, path, body string, cookie *http.Cookie) (int, string) {
		r := httptest.NewRequest(method, "http://192.168.7.2:7340"+path, strings.NewReader(body))
		r.RemoteAddr = from + ":4444"
		r.Header.Set("Content-Type", "application/json")
		if path == "/join" {
			r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
		}
		if cookie != nil {
			r.AddCookie(cookie)
		}
		w := httptest.NewRecorder()
		h.ServeHTTP(w, r)
		if c := w.Result().Cookies(); len(c) > 0 {
			return w.Code, c[0].Value
		}
		return w.Code, w.Body.String()
	}
	r := rand.New(rand.NewPCG(9, 6))
	in := 0
	guesses := rounds(400, 20_000)
	for range guesses {
		code := make([]byte, 6)
		for i := range code {
			code[i] = "ABCDEFGHJKLMNPQRSTUVWXYZ23456789"[r.IntN(32)]
		}
		if status, _ := ask(fmt.Sprintf("192.168.7.%d", 20+r.IntN(200)), "POST", "/join", "code="+string(code), nil); status == http.StatusSeeOther {
			in++
		}
		if status, _ := ask("192.168.7.9", "GET", "/api/v1/builds", "", &http.Cookie{Name: weball.Cookie, Value: string(code)}); status != http.StatusForbidden {
			in++
		}
	}
	note("guessed codes and cookies", 2*guesses, 2*guesses-in, in)
	if in > 0 {
		t.Errorf("%d guesses came in", in)
	}
	status, token := ask("192.168.7.10", "POST", "/join", "code="+sharing.Code(), nil)
	if status != http.StatusSeeOther {
		t.Fatalf("the right code after all that: %d", status)
	}
	guest := &http.Cookie{Name: weball.Cookie, Value: token}
	_, text := ask("192.168.7.10", "GET", "/api/v1/openapi.json", "", guest)
	var d description
	if err := json.Unmarshal([]byte(text), &d); err != nil {
		t.Fatal(err)
	}
	// By hand, so that a route that loses its mark is found.
	house := map[string]bool{"get-backup": true, "restore-backup": true, "list-copies": true, "restore-copy": true, "set-settings": true, "sharing": true, "put-out": true}
	tried, wrong := 0, 0
	for path, methods := range d.Paths {
		for method, op := range methods {
			if !house[op.ID] {
				continue
			}
			tried++
			at := strings.NewReplacer("{id}", "1", "{day}", "2026-11-29").Replace(path)
			if status, says := ask("192.168.7.10", strings.ToUpper(method), at, "{}", guest); status != http.StatusForbidden {
				wrong++
				t.Errorf("a guest may %s %s: %d %.100s", method, path, status, says)
			}
		}
	}
	note("guests at what is of the house", tried, tried-wrong, wrong)
	if tried != len(house) {
		t.Errorf("%d routes of the house were found, of %d", tried, len(house))
	}
	if _, err := s.Build(context.WithoutCancel(t.Context()), 1); err != nil {
		t.Error(err)
	}
}
