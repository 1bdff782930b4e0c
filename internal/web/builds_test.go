package web_test

import (
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"net/http/httptest"
	"path/filepath"
	"strings"
	"testing"
	"testing/fstest"

	"tussock/internal/bench"
	"tussock/internal/store"
	"tussock/internal/web"
	"tussock/internal/web/builds"
	"tussock/internal/web/folding"
	"tussock/internal/web/papers"
)

func TestShelfSaysWhatThereIs(t *testing.T) {
	c := serve(t, false)
	patterns := ask[[]folding.PatternView](c, "GET", "/patterns", "")
	if len(patterns) != 22 {
		t.Fatalf("%d patterns on the shelf", len(patterns))
	}
	for _, p := range patterns {
		if p.Picture == nil || len(p.Picture.Faces) == 0 || p.Steps == 0 || p.Good == "" || p.Size == "" && p.WidthMM > 160 && p.WidthMM != p.HeightMM && p.HeightMM > 60 { // squares and strips have no name
			t.Errorf("the card of %s is %+v", p.ID, p)
		}
		for _, k := range p.Knobs {
			if p.ID == "shelduck" && k.Name == "gap" {
				t.Error("a param without range is shown as a knob")
			}
		}
	}
	thickest := map[string]int{}
	for _, p := range patterns {
		thickest[p.ID] = p.Thickest
	}
	for id, want := range map[string]int{"curlew": 16, "fortune": 4, "shelduck": 24} {
		if thickest[id] != want {
			t.Errorf("the thickest stack of %s has %d layers", id, thickest[id])
		}
	}
}

// The replay that the page draws agrees with the engine's reference, and tells
// what works when a fold does not.
func TestReplayView(t *testing.T) {
	c := serve(t, false)
	good := ask[folding.ReplayView](c, "POST", "/patterns/curlew/replay", `{"sheet":`+a4Sheet+`}`)
	if !good.OK || good.Toy == nil || len(good.Steps) != 10 || good.Size != "A4" || good.Error != nil {
		t.Fatalf("the replay is %+v", good)
	}
	if m := good.Toy.MassG; m < 4.98959 || m > 4.98961 {
		t.Errorf("mass %v", m)
	}
	if d := good.Toy.Measures[1].Value; d < 59.0769 || d > 59.0770 {
		t.Errorf("keel depth %v", d)
	}
	for _, s := range good.Steps {
		if s.Describe == "" || s.Say == "" || len(s.After.Faces) == 0 || len(s.Layers) == 0 {
			t.Errorf("step %d lacks something: %+v", s.No, s)
		}
	}
	bad := ask[folding.ReplayView](c, "POST", "/patterns/curlew/replay", `{"sheet":`+a4Sheet+`,"knobs":{"nose":60}}`)
	if bad.OK || bad.Toy != nil || bad.Error == nil || bad.Error.Step != 2 || len(bad.Steps) != 1 || len(bad.Advice) != 1 || bad.Advice[0].Knob != "nose" {
		t.Errorf("an impossible replay is %+v", bad.Error)
	}
	// Asked twice it is the same to the byte, from the cache or not.
	_, first := c.send("POST", "/patterns/shelduck/replay", `{"sheet":`+a4Sheet+`,"knobs":{"depth":31}}`)
	_, again := c.send("POST", "/patterns/shelduck/replay", `{"knobs":{"depth":31},"sheet":`+a4Sheet+`}`)
	if string(first) != string(again) {
		t.Error("the same question has two answers")
	}
	// Colours are part of the question.
	red := ask[folding.ReplayView](c, "POST", "/patterns/shelduck/replay", `{"sheet":`+strings.Replace(a4Sheet, `"gsm":80`, `"gsm":80,"front":"#aa0000"`, 1)+`,"knobs":{"depth":31}}`)
	if red.Sheet.Front != "#aa0000" {
		t.Errorf("the front is %s", red.Sheet.Front)
	}
}

func TestBuildsAreNamedCopiedBinned(t *testing.T) {
	c := serve(t, false)
	a, b := newBuild(c, "curlew"), newBuild(c, "curlew")
	if a.Name != "Curlew 1" || b.Name != "Curlew 2" {
		t.Errorf("builds are called %q and %q", a.Name, b.Name)
	}
	v := ask[builds.BuildView](c, "PATCH", "/builds/1", `{"name":"  Quay  ","step":4}`)
	if v.Name != "Quay" || v.Step != 4 {
		t.Errorf("changed to %q, step %d", v.Name, v.Step)
	}
	ask[builds.LoggedView](c, "POST", "/builds/1/trials", `{"read":{"distance":6},"thrower":"Tova","place":"pier"}`)
	copied := ask[builds.BuildView](c, "POST", "/builds/1/duplicate", "")
	if copied.Name != "Copy of Quay" || copied.Trials != 0 || !copied.Draft || copied.Parent != nil {
		t.Errorf("the copy is %+v", copied)
	}
	// A build without throws takes the conditions of the last throw anywhere.
	if k := copied.Conditions; k.Thrower != "Tova" || k.Place != "pier" {
		t.Errorf("conditions of the copy are %+v", k)
	}
	if status, _ := c.send("DELETE", "/builds/1", ""); status != 204 {
		t.Errorf("binning answers %d", status)
	}
	for _, call := range [][2]string{{"GET", "/builds/1"}, {"DELETE", "/builds/1"}, {"POST", "/builds/1/duplicate"}, {"GET", "/builds/1/bundle"}} {
		if status, _ := c.send(call[0], call[1], ""); status != 404 {
			t.Errorf("%v on a binned build answers %d", call, status)
		}
	}
	if bin := ask[builds.BinView](c, "GET", "/bin", ""); len(bin.Builds) != 1 || bin.Builds[0].Trials != 1 {
		t.Errorf("the bin holds %+v", bin.Builds)
	}
	if v = ask[builds.BuildView](c, "POST", "/builds/1/restore", ""); v.Trials != 1 {
		t.Errorf("restored with %d throws", v.Trials)
	}
	cards := ask[[]builds.BuildCard](c, "GET", "/builds", "")
	for _, card := range cards {
		if card.Picture == nil || card.Steps != 10 || card.Size != "A4" {
			t.Errorf("the card of %s is %+v", card.Name, card)
		}
		if card.ID == 1 && (card.Stats.N != 1 || card.Stats.Median != 6) {
			t.Errorf("the card shows %+v", card.Stats)
		}
	}
}

func TestWhyOfATweak(t *testing.T) {
	c := serve(t, false)
	newBuild(c, "curlew")
	v := ask[builds.BuildView](c, "POST", "/builds/1/tweaks", `{"why":"first"}`)
	if len(v.Tweaks) != 1 || v.Tweaks[0].Why != "first" {
		t.Fatalf("%+v", v.Tweaks)
	}
	if v = ask[builds.BuildView](c, "PATCH", "/builds/1/tweaks/1", `{"why":"better said"}`); v.Tweaks[0].Why != "better said" {
		t.Errorf("%+v", v.Tweaks)
	}
	if status, _ := c.send("PATCH", "/builds/1/tweaks/7", `{"why":"x"}`); status != 404 {
		t.Errorf("a tweak that is not answers %d", status)
	}
	if status, _ := c.send("POST", "/builds/1/tweaks", `{"why":"`+strings.Repeat("x", 501)+`"}`); status != 422 {
		t.Errorf("too long a reason answers %d", status)
	}
}

func TestPapersAndSettings(t *testing.T) {
	c := serve(t, false)
	p := ask[papers.PaperView](c, "POST", "/papers", `{"name":" Ticket strip ","sheet":{"width":5,"height":12,"unit":"cm","gsm":120,"thickness_mm":0.15,"front":"#112233"}}`)
	if p.Name != "Ticket strip" || p.Sheet.WidthMM != 50 || p.Sheet.HeightMM != 120 || p.Sheet.Paper != "Ticket strip" || p.Sheet.Front != "#112233" || p.Sheet.Back != bench.DefaultBack {
		t.Errorf("kept as %+v", p)
	}
	at := fmt.Sprintf("/papers/%d", p.ID)
	if status, _ := c.send("DELETE", at, ""); status != 204 {
		t.Errorf("binning answers %d", status)
	}
	if n := len(ask[[]papers.PaperView](c, "GET", "/papers", "")); n != 0 {
		t.Errorf("%d papers are left", n)
	}
	if status, _ := c.send("POST", at+"/restore", ""); status != 204 {
		t.Errorf("restoring answers %d", status)
	}
	if n := len(ask[[]papers.PaperView](c, "GET", "/papers", "")); n != 1 {
		t.Errorf("%d papers came back", n)
	}
	want := bench.Settings{Units: "in", Hand: "left", Theme: "dark"}
	body, err := json.Marshal(want)
	if err != nil {
		t.Fatal(err)
	}
	ask[bench.Settings](c, "PUT", "/settings", string(body))
	want.Page = "auto" // where nobody has said what lies in the printer
	if got := ask[bench.Settings](c, "GET", "/settings", ""); got != want {
		t.Errorf("settings are %+v", got)
	}
}

// The page's own files: known assets for ever, unknown ones not the page, every
// other address the page, and headers that keep strangers out.
func TestPageFiles(t *testing.T) {
	s, err := store.Open(t.Context(), filepath.Join(t.TempDir(), "t.db"))
	if err != nil {
		t.Fatal(err)
	}
	h, err := web.New(s, fstest.MapFS{
		"index.html":       {Data: []byte("<html>the page</html>")},
		"assets/app-1a.js": {Data: []byte(strings.Repeat("let a = 1;\n", 400))},
	})
	if err != nil {
		t.Fatal(err)
	}
	server := httptest.NewServer(h)
	t.Cleanup(func() {
		server.Close()
		if err := s.Close(); err != nil {
			t.Error(err)
		}
	})
	for _, c := range []struct {
		path, cache, body string
		status            int
	}{
		{"/", "no-cache", "the page", 200},
		{"/bench/4/fold/2", "no-cache", "the page", 200},
		{"/assets/app-1a.js", "immutable", "let a", 200},
		{"/assets/gone.js", "", "not found", 404},
		{"/assets/", "", "not found", 404},
		{"/../../etc/passwd", "", "invalid URL path", 400},
		{"/api/v1/settings", "no-store", "units", 200},
		{"/api/v1/openapi.yaml", "no-store", "openapi:", 200},
	} {
		req, err := http.NewRequestWithContext(t.Context(), http.MethodGet, server.URL, nil)
		if err != nil {
			t.Fatal(err)
		}
		req.URL.Path = c.path
		res, err := http.DefaultClient.Do(req)
		if err != nil {
			t.Fatal(err)
		}
		b, err := io.ReadAll(res.Body)
		if err != nil {
			t.Fatal(err)
		}
		if err := res.Body.Close(); err != nil {
			t.Fatal(err)
		}
		if res.StatusCode != c.status || !strings.Contains(string(b), c.body) || !strings.Contains(res.Header.Get("Cache-Control"), c.cache) {
			t.Errorf("%s answers %d, %q, cache %q", c.path, res.StatusCode, b[:min(len(b), 60)], res.Header.Get("Cache-Control"))
		}
		csp := res.Header.Get("Content-Security-Policy")
		if !strings.Contains(csp, "script-src 'self'") || strings.Contains(csp, "script-src 'self' 'unsafe-inline'") || res.Header.Get("X-Content-Type-Options") != "nosniff" {
			t.Errorf("%s is sent with policy %q", c.path, csp)
		}
	}
}

func TestWithoutBuiltPage(t *testing.T) {
	c := serve(t, false)
	res, err := http.Get(c.url + "/")
	if err != nil {
		t.Fatal(err)
	}
	b, err := io.ReadAll(res.Body)
	if err != nil {
		t.Fatal(err)
	}
	if err := res.Body.Close(); err != nil {
		t.Fatal(err)
	}
	if res.StatusCode != 503 || !strings.Contains(string(b), "make build") {
		t.Errorf("without a page it answers %d %q", res.StatusCode, b)
	}
}
