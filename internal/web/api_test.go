package web_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"maps"
	"net/http"
	"net/http/httptest"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"tussock/internal/bench"
	"tussock/internal/demo"
	"tussock/internal/say"
	"tussock/internal/store"
	"tussock/internal/web"
	"tussock/internal/web/answer"
	"tussock/internal/web/builds"
	"tussock/internal/web/files"
)

// client talks to a server of its own.
type client struct {
	t   *testing.T
	url string
}

func serve(t *testing.T, seed bool) client {
	t.Helper()
	s, err := store.Open(t.Context(), filepath.Join(t.TempDir(), "t.db"))
	if err != nil {
		t.Fatal(err)
	}
	if seed {
		if err := demo.Seed(t.Context(), s); err != nil {
			t.Fatal(err)
		}
	}
	h, err := web.New(s, nil)
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
	return client{t, server.URL}
}

// acts are what a page does to a build that it shows.
var acts = regexp.MustCompile(`^(/builds/\d+)/(trials|draft|tweaks|children)$`)

// looked completes what a page that has just looked at a build sends along: the version
// that it shows, and with a trial the set-up.
func (c client) looked(method, path, body string) (string, string) {
	c.t.Helper()
	m := acts.FindStringSubmatch(path)
	if m == nil || strings.Contains(body, `"version"`) {
		return path, body
	}
	status, answer := c.send("GET", m[1], "")
	if status != 200 {
		return path, body
	}
	var b builds.BuildView
	if err := json.Unmarshal(answer, &b); err != nil {
		c.t.Fatal(err)
	}
	if method == "DELETE" {
		return fmt.Sprintf("%s?version=%d", path, b.Version), body
	}
	more := fmt.Sprintf(`{"version":%d`, b.Version)
	if m[2] == "trials" {
		more += `,"setup":` + shown(c.t, b.Setup)
	}
	if rest := strings.TrimPrefix(body, "{"); rest != "}" {
		more += ","
	}
	return path, more + strings.TrimPrefix(body, "{")
}

// shown is a set-up as a page sends it.
func shown(t *testing.T, s bench.Setup) string {
	t.Helper()
	b, err := json.Marshal(answer.SetupInput{Knobs: s.Knobs, Recipes: s.Recipes, Sheet: answer.SheetInput{
		Width: s.Sheet.WidthMM, Height: s.Sheet.HeightMM, Unit: "mm", GSM: s.Sheet.GSM, ThicknessMM: s.Sheet.ThicknessMM,
		Paper: s.Sheet.Paper, Front: s.Sheet.Front, Back: s.Sheet.Back}})
	if err != nil {
		t.Fatal(err)
	}
	return string(b)
}

func (c client) send(method, path, body string) (status int, answer []byte) {
	c.t.Helper()
	path, body = c.looked(method, path, body)
	req, err := http.NewRequestWithContext(c.t.Context(), method, c.url+"/api/v1"+path, strings.NewReader(body))
	if err != nil {
		c.t.Fatal(err)
	}
	if body != "" {
		req.Header.Set("Content-Type", "application/json")
	}
	res, err := http.DefaultClient.Do(req)
	if err != nil {
		c.t.Fatal(err)
	}
	answer, err = io.ReadAll(res.Body)
	if err := res.Body.Close(); err != nil {
		c.t.Fatal(err)
	}
	if err != nil {
		c.t.Fatal(err)
	}
	c.holds(method, path, res.StatusCode, answer)
	// As somebody reads it who measures in millimetres.
	return res.StatusCode, []byte(say.Plain(string(answer)))
}

// get and friends decode an answer that must succeed.
func ask[T any](c client, method, path, body string) T {
	c.t.Helper()
	status, b := c.send(method, path, body)
	var v T
	if status >= 300 {
		c.t.Fatalf("%s %s answers %d: %s", method, path, status, b)
	}
	if len(b) > 0 {
		if err := json.Unmarshal(b, &v); err != nil {
			c.t.Fatalf("%s %s: %v", method, path, err)
		}
	}
	return v
}

const a4Sheet = `{"width":210,"height":297,"unit":"mm","gsm":80,"thickness_mm":0.1}`

func newBuild(c client, pattern string) builds.BuildView {
	c.t.Helper()
	return ask[builds.BuildView](c, "POST", "/builds", `{"pattern":"`+pattern+`","sheet":`+a4Sheet+`}`)
}

// Refusals name the field and say what would be right; nothing is changed.
// Long because it is a table.
func TestRefusals(t *testing.T) {
	c := serve(t, false)
	newBuild(c, "curlew")
	sheet := func(change string) string {
		return strings.Replace(`{"sheet":`+a4Sheet+`}`, `"width":210`, change, 1)
	}
	for _, x := range []struct {
		method, path, body string
		status             int
		want               []string
	}{
		{"POST", "/patterns/curlew/replay", sheet(`"width":-210`), 422, []string{"width", "-210", "20 to 2000 mm"}},
		{"POST", "/patterns/curlew/replay", sheet(`"width":1e300`), 422, []string{"width", "20 to 2000 mm"}},
		{"POST", "/patterns/curlew/replay", sheet(`"width":1e999`), 400, []string{"width cannot be read", "1e999"}},
		{"POST", "/patterns/curlew/replay", sheet(`"width":NaN`), 400, []string{"width cannot be read"}},
		{"POST", "/patterns/curlew/replay", sheet(`"width":""`), 422, []string{"body.sheet.width", "expected number"}},
		{"POST", "/patterns/curlew/replay", sheet(`"width":null`), 422, []string{"width"}},
		{"POST", "/patterns/curlew/replay", sheet(`"wide":210`), 422, []string{"body.sheet.wide", "unexpected property", "width"}},
		{"POST", "/patterns/curlew/replay", strings.Replace(sheet(`"width":210`), `"mm"`, `"ell"`, 1), 422, []string{"body.sheet.unit", "mm, cm, in"}},
		{"POST", "/patterns/curlew/replay", strings.Replace(sheet(`"width":8.5`), `"mm"`, `"in"`, 1), 422, []string{"height is 297 in", "0.787 to 78.74 in"}},
		{"POST", "/patterns/curlew/replay", strings.Replace(sheet(`"width":210`), `"gsm":80`, `"gsm":0`, 1), 422, []string{"gsm is 0", "10 to 600 g/m²"}},
		{"POST", "/patterns/curlew/replay", `{"sheet":` + a4Sheet + `,"knobs":{"wing":181}}`, 422, []string{"body.knobs.wing", "Wing angle is 181°", "0 to 180°"}},
		{"POST", "/patterns/curlew/replay", `{"sheet":` + a4Sheet + `,"knobs":{"tail":1}}`, 422, []string{"body.knobs.tail", "has no knob"}},
		{"POST", "/patterns/curlew/replay", `{"sheet":` + a4Sheet + `,"knobs":{"wing":"80 deg"}}`, 422, []string{"body.knobs.wing", "expected number"}},
		{"POST", "/patterns/heron/replay", sheet(`"width":210`), 422, []string{"no pattern", "heron", "curlew"}},
		{"POST", "/patterns/curlew/replay", "", 400, []string{"body is required"}},
		{"POST", "/patterns/curlew/replay", `{"sheet":` + strings.Repeat(" ", 20<<10) + a4Sheet + `}`, 413, nil},
		{"POST", "/builds", `{"pattern":"shelduck","sheet":{"width":150,"height":150,"unit":"mm","gsm":80,"thickness_mm":0.1}}`, 422, []string{"body.sheet", "1.2 and 1.6 times"}},
		{"POST", "/builds", `{"pattern":"curlew","sheet":` + a4Sheet + `,"knobs":{"nose":75}}`, 422, []string{"body.knobs.nose", "step 2 cannot be folded"}},
		{"POST", "/builds", `{"pattern":"curlew","name":"` + strings.Repeat("x", 81) + `","sheet":` + a4Sheet + `}`, 422, []string{"name", "1 to 80 characters"}},
		{"PATCH", "/builds/1", `{"name":"   "}`, 422, []string{"name", "1 to 80 characters"}},
		{"PATCH", "/builds/1", `{}`, 422, []string{"send a name or a step"}},
		{"GET", "/builds/99", "", 404, []string{"does not exist"}},
		{"GET", "/builds/nine", "", 422, []string{"path.id"}},
		{"POST", "/builds/1/trials", `{"read":{"distance":-1}}`, 422, []string{"body.distance", "0 to 200 m"}},
		{"POST", "/builds/1/trials", `{"read":{"time":1000}}`, 422, []string{"body.time", "0 to 120 s"}},
		{"POST", "/builds/1/trials", `{"read":{"distance":5},"seen":["exploded"]}`, 422, []string{"body.seen", "exploded", "stalled"}},
		{"POST", "/builds/1/trials", `{}`, 422, []string{"distance", "empty"}},
		{"POST", "/builds/1/trials", `{"read":{"distance":5},"note":"` + strings.Repeat("x", 2001) + `"}`, 422, []string{"body.note", "2000"}},
		{"PUT", "/settings", `{"units":"ells","hand":"left","theme":"auto"}`, 422, []string{"body.units", "mm, in"}},
		{"POST", "/papers", `{"name":"","sheet":` + a4Sheet + `}`, 422, []string{"name", "1 to 80"}},
		{"POST", "/papers", `{"name":"x","sheet":` + strings.Replace(a4Sheet, `"gsm":80`, `"gsm":80,"front":"red"`, 1) + `}`, 422, []string{"front", "#fdf8ea"}},
		{"DELETE", "/trials/5", "", 404, nil},
		{"PUT", "/builds", "{}", 405, nil},
		{"GET", "/nothing", "", 404, []string{"nothing at"}},
		{"POST", "/backup", "no database", 422, []string{"not a Tussock backup"}},
	} {
		req := x.method + " " + x.path + " " + x.body[:min(len(x.body), 120)]
		status, answer := c.send(x.method, x.path, x.body)
		if x.path == "/backup" { // takes bytes, not JSON
			res, err := http.Post(c.url+"/api/v1/backup", "application/octet-stream", strings.NewReader(x.body))
			if err != nil {
				t.Fatal(err)
			}
			status = res.StatusCode
			if answer, err = io.ReadAll(res.Body); err != nil {
				t.Fatal(err)
			}
		}
		if status != x.status {
			t.Errorf("%s answers %d, want %d: %s", req, status, x.status, answer)
			continue
		}
		var problem struct {
			Status int
			Detail string
		}
		if err := json.Unmarshal(answer, &problem); err != nil || problem.Status != status || problem.Detail == "" {
			t.Errorf("%s: %q is not the problem shape", req, answer)
		}
		for _, w := range x.want {
			if !strings.Contains(strings.ReplaceAll(string(answer), `\"`, `"`), w) {
				t.Errorf("%s: the answer does not say %q: %s", req, w, answer)
			}
		}
	}
	if b := ask[builds.BuildView](c, "GET", "/builds/1", ""); b.Trials != 0 || b.Name != "Curlew 1" || len(b.Tweaks) != 0 {
		t.Errorf("refused requests have changed the build: %+v", b)
	}
	if n := len(ask[[]builds.BuildCard](c, "GET", "/builds", "")); n != 1 {
		t.Errorf("refused requests have left %d builds", n)
	}
}

// The rules of drafts, tweaks and child builds, through the API.
func TestDraftsTweaksChildren(t *testing.T) {
	c := serve(t, false)
	b := newBuild(c, "curlew")
	if !b.Draft || len(b.Tweaks) != 0 {
		t.Fatalf("a new build is %+v", b)
	}
	draft := func(knobs string) builds.BuildView {
		return ask[builds.BuildView](c, "PATCH", "/builds/1/draft", `{"sheet":`+a4Sheet+`,"knobs":`+knobs+`}`)
	}
	// Before the first throw hard folds move freely.
	draft(`{"nose":10,"wing":85}`)
	logged := ask[builds.LoggedView](c, "POST", "/builds/1/trials", `{"read":{"distance":6.5},"thrower":"Ilse","air":"still"}`)
	if logged.Tweak != 1 || logged.Build.Draft || logged.Build.Tweaks[0].Setup.Knobs["nose"] != 10 {
		t.Fatalf("the first throw settles %+v", logged)
	}
	if k := logged.Build.Conditions; k.Thrower != "Ilse" || k.Air != "still" || len(k.Read) != 0 {
		t.Errorf("conditions are kept as %+v", k)
	}
	// A last bend: the next throw settles tweak 2, the first throw stays at 1.
	draft(`{"nose":10,"wing":80}`)
	logged = ask[builds.LoggedView](c, "POST", "/builds/1/trials", `{"read":{"distance":7.5}}`)
	if logged.Tweak != 2 || len(logged.Build.Tweaks[0].Trials) != 1 || len(logged.Build.Tweaks[1].Trials) != 1 {
		t.Fatalf("the second throw settles %+v", logged)
	}
	if ch := logged.Build.Tweaks[1].Changes; len(ch) != 1 || ch[0].Knob != "wing" || ch[0].From != 85 || ch[0].To != 80 || ch[0].Hard {
		t.Errorf("tweak 2 changes %+v", ch)
	}
	// Moved there and back: no draft is left.
	if v := draft(`{"nose":10,"wing":70}`); !v.Draft || v.NeedsChild {
		t.Errorf("a bend gives %+v", v)
	}
	if v := draft(`{"nose":10,"wing":80}`); v.Draft {
		t.Error("moving a knob back leaves a draft")
	}
	if status, _ := c.send("POST", "/builds/1/tweaks", `{}`); status != 409 {
		t.Errorf("a tweak without change answers %d", status)
	}
	// A hard fold after throws: only a child build.
	if v := draft(`{"nose":20,"wing":80}`); !v.NeedsChild {
		t.Error("a hard fold after throws does not ask for a child build")
	}
	for path, body := range map[string]string{"/builds/1/tweaks": `{}`, "/builds/1/trials": `{"read":{"distance":7}}`} {
		status, answer := c.send("POST", path, body)
		if status != 409 || !bytes.Contains(answer, []byte("child build")) {
			t.Errorf("%s with a hard fold answers %d: %s", path, status, answer)
		}
	}
	child := ask[builds.BuildView](c, "POST", "/builds/1/children", `{}`)
	if child.Parent == nil || child.Parent.ID != 1 || child.Parent.Tweak != 2 || child.Setup.Knobs["nose"] != 20 || child.Trials != 0 {
		t.Errorf("the child is %+v", child)
	}
	parent := ask[builds.BuildView](c, "GET", "/builds/1", "")
	if parent.Draft || parent.Trials != 2 || len(parent.Children) != 1 || parent.Setup.Knobs["nose"] != 10 {
		t.Errorf("the parent is left as %+v", parent)
	}
	// Another sheet likewise.
	v := ask[builds.BuildView](c, "PATCH", "/builds/1/draft", `{"sheet":{"width":8.5,"height":11,"unit":"in","gsm":80,"thickness_mm":0.1},"knobs":{"nose":10,"wing":80}}`)
	if !v.NeedsChild || v.Setup.Sheet.WidthMM != 215.9 {
		t.Errorf("another sheet gives %+v", v)
	}
	if v := ask[builds.BuildView](c, "DELETE", "/builds/1/draft", ""); v.Draft {
		t.Error("a discarded draft is still there")
	}
}

func TestTrialsCanBeEditedBinnedAndRestored(t *testing.T) {
	c := serve(t, false)
	newBuild(c, "shelduck")
	first := ask[builds.LoggedView](c, "POST", "/builds/1/trials", `{"read":{"distance":4},"seen":["stalled"],"note":"a"}`)
	ask[builds.LoggedView](c, "POST", "/builds/1/trials", `{"read":{"distance":6}}`)
	at := fmt.Sprintf("/trials/%d", first.Trial)
	b := ask[builds.BuildView](c, "PUT", at, `{"read":{"distance":5,"time":1.25}}`)
	if s := b.Tweaks[0].Stats["distance"]; s.N != 2 || s.Median != 5.5 || s.Best != 6 {
		t.Errorf("after the edit %+v", s)
	}
	if b = ask[builds.BuildView](c, "DELETE", at, ""); b.Trials != 1 {
		t.Errorf("%d throws after deleting one", b.Trials)
	}
	if bin := ask[builds.BinView](c, "GET", "/bin", ""); len(bin.Trials) != 1 || bin.Trials[0].Trial.Read["distance"] != 5 {
		t.Errorf("the bin holds %+v", bin)
	}
	if b = ask[builds.BuildView](c, "POST", at+"/restore", ""); b.Trials != 2 || b.Tweaks[0].Trials[0].Read["time"] != 1.25 {
		t.Errorf("after restoring %+v", b.Tweaks)
	}
}

// A bundle read back is the same build; a hostile one is refused whole.
func TestBundleRoundTrip(t *testing.T) {
	c := serve(t, true)
	before := ask[files.Bundle](c, "GET", "/builds/4/bundle", "")
	text, err := json.Marshal(before)
	if err != nil {
		t.Fatal(err)
	}
	b := ask[builds.BuildView](c, "POST", "/bundles", string(text))
	after := ask[files.Bundle](c, "GET", fmt.Sprintf("/builds/%d/bundle", b.ID), "")
	again, err := json.Marshal(after)
	if err != nil {
		t.Fatal(err)
	}
	if !bytes.Equal(text, again) {
		t.Errorf("read back it is\n%s\nsaved it was\n%s", again, text)
	}
	n := len(ask[[]builds.BuildCard](c, "GET", "/builds", ""))
	for _, change := range [][2]string{
		{`"pattern":"shelduck"`, `"pattern":"../etc"`}, {`"width_mm":210`, `"width_mm":1e9`}, {`"version":2`, `"version":9`},
		{`"distance":`, `"distance":-`}, {`"wing":90`, `"wing":900`}, {`"name":"`, `"sudo":1,"name":"`},
	} {
		bad := strings.Replace(string(text), change[0], change[1], 1)
		if bad == string(text) {
			t.Fatalf("%s is not in the bundle", change[0])
		}
		if status, answer := c.send("POST", "/bundles", bad); status != 422 {
			t.Errorf("with %s it answers %d: %.200s", change[1], status, answer)
		}
	}
	if m := len(ask[[]builds.BuildCard](c, "GET", "/builds", "")); m != n {
		t.Errorf("refused bundles have left %d builds", m-n)
	}
}

// Another site cannot reach the API: neither by its name nor by a form.
func TestOnlyThisMachine(t *testing.T) {
	c := serve(t, false)
	try := func(change func(*http.Request)) int {
		req, err := http.NewRequestWithContext(t.Context(), http.MethodPost, c.url+"/api/v1/patterns/curlew/replay", strings.NewReader(`{"sheet":`+a4Sheet+`}`))
		if err != nil {
			t.Fatal(err)
		}
		req.Header.Set("Content-Type", "application/json")
		change(req)
		res, err := http.DefaultClient.Do(req)
		if err != nil {
			t.Fatal(err)
		}
		if err := res.Body.Close(); err != nil {
			t.Fatal(err)
		}
		return res.StatusCode
	}
	if s := try(func(*http.Request) {}); s != 200 {
		t.Errorf("an honest request answers %d", s)
	}
	if s := try(func(r *http.Request) { r.Host = "tussock.example" }); s != 403 {
		t.Errorf("another host name answers %d", s)
	}
	if s := try(func(r *http.Request) { r.Header.Set("Sec-Fetch-Site", "cross-site") }); s != 403 {
		t.Errorf("another site answers %d", s)
	}
	if s := try(func(r *http.Request) { r.Header.Set("Origin", "http://tussock.example") }); s != 403 {
		t.Errorf("another origin answers %d", s)
	}
}

func TestDescriptionCoversTheAPI(t *testing.T) {
	y, err := web.Describe()
	if err != nil {
		t.Fatal(err)
	}
	for _, want := range []string{"/api/v1/patterns/{id}/replay", "/api/v1/builds/{id}/trials", "application/problem+json", "ReplayView"} {
		if !bytes.Contains(y, []byte(want)) {
			t.Errorf("the description lacks %s", want)
		}
	}
}

// A bundle of the first version wrote a throw's readings each in a field of its own; it is
// still read, and nothing of it is lost.
func TestBundleOfTheFirstVersion(t *testing.T) {
	c := serve(t, false)
	old := `{"format":"tussock-build","version":1,"name":"From last year","pattern":"curlew","step":10,"created":"2026-10-01T10:00:00Z","tweaks":[{"setup":{"sheet":{"width_mm":210,"height_mm":297,"gsm":80,"thickness_mm":0.1,"paper":"","front":"#ffffff","back":"#dddddd"},"knobs":{"curl":4}},"created":"2026-10-01T10:00:00Z",
		"trials":[{"at":"2026-10-01T10:05:00Z","distance_m":7.5,"time_s":1.9,"offset_m":-0.4,"throw_height_m":1.6,"seen":["glided"],"thrower":"Ilse"},{"at":"2026-10-01T10:06:00Z","seen":["dived"]}]}]}`
	b := ask[builds.BuildView](c, "POST", "/bundles", old)
	got := b.Tweaks[0].Trials[0]
	want := map[string]float64{"distance": 7.5, "time": 1.9, "aside": -0.4, "from": 1.6}
	if !maps.Equal(got.Read, want) || got.Thrower != "Ilse" || len(got.Seen) != 1 || len(b.Tweaks[0].Trials[1].Read) != 0 {
		t.Errorf("%+v", b.Tweaks[0].Trials)
	}
	refused(c, "POST", "/bundles", strings.Replace(old, `"distance_m":7.5`, `"distance_m":750`, 1), "trials[0]", "0 to 200 m")
}
