package web_test

import (
	"bufio"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"net/http/httptest"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"tussock/internal/bench"
	"tussock/internal/demo"
	"tussock/internal/store"
	"tussock/internal/web"
	"tussock/internal/web/builds"
	"tussock/internal/web/hall"
)

// kept is an empty store.
func kept(t *testing.T) *store.Store {
	t.Helper()
	s, err := store.Open(t.Context(), filepath.Join(t.TempDir(), "t.db"))
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() {
		if err := s.Close(); err != nil {
			t.Error(err)
		}
	})
	return s
}

// hallOf is the hall network of a test: requests come from other machines.
type hallOf struct {
	t *testing.T
	*hall.Sharing
	h http.Handler
}

const there = "http://192.168.7.2:7340"

func shared(t *testing.T, data *store.Store) hallOf {
	t.Helper()
	s, err := hall.NewSharing(t.Context(), there, data)
	if err != nil {
		t.Fatal(err)
	}
	h, err := web.NewShared(data, nil, s)
	if err != nil {
		t.Fatal(err)
	}
	return hallOf{t, s, h}
}

// send asks from an address of the hall network; change may alter what is asked.
func (h hallOf) send(from, method, path, body string, cookies []*http.Cookie, change func(*http.Request)) *http.Response {
	r := httptest.NewRequest(method, there+path, strings.NewReader(body))
	r.RemoteAddr = from + ":5555"
	switch {
	case path == "/join":
		r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	case body != "":
		r.Header.Set("Content-Type", "application/json")
	}
	for _, c := range cookies {
		r.AddCookie(c)
	}
	if change != nil {
		change(r)
	}
	w := httptest.NewRecorder()
	h.h.ServeHTTP(w, r)
	return w.Result()
}

// knock comes to the door with a code.
func (h hallOf) knock(from, code, name string) *http.Response {
	return h.send(from, "POST", "/join", "code="+code+"&name="+name, nil, nil)
}

const phone, tablet = "192.168.7.9", "192.168.7.10"

// Each code lets one device in, once, by knocking and not by looking; a name instead of an
// address is refused.
func TestSharingByOneTimeCode(t *testing.T) {
	h := shared(t, kept(t))
	get := func(path string, cookies []*http.Cookie, change func(*http.Request)) *http.Response {
		return h.send(phone, "GET", path, "", cookies, change)
	}
	var told []string
	h.Shown = func(code string) { told = append(told, code) }
	if res := get("/api/v1/health", nil, nil); res.StatusCode != 403 {
		t.Errorf("without a code: %d", res.StatusCode)
	}
	code := h.Code()
	if len(code) != hall.CodeLength || strings.ContainsAny(code, "01IO") {
		t.Errorf("code %q", code)
	}
	for range 3 { // a phone looks at an address before it opens it
		if res := get("/join?code="+code, nil, nil); res.StatusCode != 200 || h.Code() != code {
			t.Fatalf("looking: %d", res.StatusCode)
		}
	}
	in := h.knock(phone, "+"+strings.ToLower(code), "Nele")
	if in.StatusCode != 303 || len(in.Cookies()) != 1 || !in.Cookies()[0].HttpOnly || in.Cookies()[0].SameSite != http.SameSiteLaxMode || in.Cookies()[0].MaxAge < 86400 {
		t.Fatalf("with the code: %d, %v", in.StatusCode, in.Cookies())
	}
	if len(told) != 1 || told[0] != h.Code() {
		t.Errorf("the machine shows %v", told)
	}
	if res := get("/api/v1/health", in.Cookies(), nil); res.StatusCode != 200 {
		t.Errorf("with the cookie: %d", res.StatusCode)
	}
	again := h.knock(tablet, code, "")
	if again.StatusCode != 403 || h.Code() == code || !strings.Contains(text(t, again), "has let another device in") {
		t.Error("a code works twice, or is called wrong")
	}
	if res := get("/api/v1/health", []*http.Cookie{{Name: hall.Cookie, Value: "made-up"}}, nil); res.StatusCode != 403 {
		t.Errorf("with a made-up cookie: %d", res.StatusCode)
	}
	if res := get("/api/v1/health", in.Cookies(), func(r *http.Request) { r.Host = "hall.example" }); res.StatusCode != 403 {
		t.Errorf("by a name: %d", res.StatusCode)
	}
	// Saying that one is this machine does not make it so.
	if res := get("/api/v1/health", nil, func(r *http.Request) { r.Host = "127.0.0.1:7340" }); res.StatusCode != 403 {
		t.Errorf("pretending to be local: %d", res.StatusCode)
	}
	qr, err := h.QR()
	if err != nil || len(qr) < 21 || len(qr) != len(qr[0]) {
		t.Errorf("%d rows, %v", len(qr), err)
	}
	if words, err := h.Words(); err != nil || !strings.Contains(words, h.Code()) {
		t.Errorf("%v", err)
	}
}

func text(t *testing.T, r *http.Response) string {
	t.Helper()
	b, err := io.ReadAll(r.Body)
	if err != nil {
		t.Fatal(err)
	}
	return string(b)
}

// Wrong codes make the device that types them wait, and nobody else; the right one is
// never called wrong, and what somebody types is never taken for markup.
func TestWrongCodesAreCountedByDevice(t *testing.T) {
	h := shared(t, kept(t))
	for i := range hall.MostWrong + 3 {
		res := h.knock(phone, "WRONG", "")
		if want := map[bool]int{true: 403, false: 429}[i < hall.MostWrong]; res.StatusCode != want {
			t.Errorf("wrong code %d: %d", i+1, res.StatusCode)
		}
	}
	waiting := h.knock(phone, h.Code(), "")
	if says := text(t, waiting); waiting.StatusCode != 429 || strings.Contains(says, "not the code") || !strings.Contains(says, "Wait a minute") {
		t.Errorf("the right one while it waits: %d", waiting.StatusCode)
	}
	if res := h.knock(tablet, h.Code(), ""); res.StatusCode != 303 {
		t.Errorf("another device is shut out: %d", res.StatusCode)
	}
	h.Now = func() time.Time { return time.Now().Add(2 * hall.RestFor) }
	if res := h.knock(phone, h.Code(), ""); res.StatusCode != 303 {
		t.Error("the right code is not taken after the rest")
	}
	odd := h.send("192.168.7.11", "GET", `/join?code=%22%3E%3Cscript%3E`, "", nil, nil)
	if says := text(t, odd); strings.Contains(says, "<script") {
		t.Error("a code becomes markup")
	}
}

// Guests do what is done at the folding table, and nothing that is of the house; they are
// named, can be put out, and are still in after a restart.
func TestGuests(t *testing.T) {
	data := kept(t)
	if err := demo.Seed(t.Context(), data); err != nil {
		t.Fatal(err)
	}
	h := shared(t, data)
	in := h.knock(phone, h.Code(), "Nele's+phone").Cookies()
	other := h.knock(tablet, h.Code(), "").Cookies()
	ask := func(who []*http.Cookie, method, path, body string) *http.Response {
		return h.send(phone, method, "/api/v1"+path, body, who, nil)
	}
	var b builds.BuildView
	if err := json.Unmarshal([]byte(text(t, ask(in, "GET", "/builds/1", ""))), &b); err != nil {
		t.Fatal(err)
	}
	for _, can := range [][3]string{
		{"GET", "/patterns", ""}, {"GET", "/builds", ""}, {"GET", "/papers", ""}, {"GET", "/settings", ""}, {"GET", "/bin", ""},
		{"POST", "/builds/1/at", `{"step":3,"device":"n"}`},
		{"POST", "/builds/1/trials", fmt.Sprintf(`{"read":{"distance":5},"version":%d,"setup":%s}`, b.Version, shown(t, b.Setup))},
		{"PATCH", "/builds/1/draft", fmt.Sprintf(`{"version":%d,"knobs":{"curl":5}}`, b.Version)},
	} {
		if res := ask(in, can[0], can[1], can[2]); res.StatusCode >= 300 {
			t.Errorf("a guest may not %s %s: %d %s", can[0], can[1], res.StatusCode, text(t, res))
		}
	}
	for _, not := range [][3]string{
		{"GET", "/backup", ""}, {"POST", "/backup", "x"}, {"GET", "/copies", ""}, {"POST", "/copies/2026-11-29/restore", ""},
		{"PUT", "/settings", `{"units":"in","hand":"left","theme":"dark"}`}, {"GET", "/sharing", ""}, {"DELETE", "/devices/1", ""},
	} {
		res := ask(in, not[0], not[1], not[2])
		if says := text(t, res); res.StatusCode != 403 || !strings.Contains(says, "only the machine") || strings.Contains(says, data.Path) {
			t.Errorf("a guest may %s %s: %d %s", not[0], not[1], res.StatusCode, says)
		}
	}
	if res := ask(in, "PUT", "/me", `{"name":"Galley phone"}`); res.StatusCode != 200 {
		t.Errorf("a name: %d", res.StatusCode)
	}
	list := h.Devices()
	if len(list) != 2 || list[0].Name != "Galley phone" || list[1].Name != "Device 2" || list[0].Address != phone {
		t.Fatalf("in are %+v", list)
	}
	// A new start of the program.
	h = shared(t, data)
	if res := ask(in, "GET", "/me", ""); res.StatusCode != 200 || !strings.Contains(text(t, res), "Galley phone") {
		t.Errorf("after a restart: %d", res.StatusCode)
	}
	if err := h.PutOut(t.Context(), list[0].ID); err != nil {
		t.Fatal(err)
	}
	if res := ask(in, "GET", "/me", ""); res.StatusCode != 403 {
		t.Errorf("put out: %d", res.StatusCode)
	}
	if res := ask(other, "GET", "/me", ""); res.StatusCode != 200 {
		t.Errorf("the other one: %d", res.StatusCode)
	}
	h = shared(t, data)
	if res := ask(in, "GET", "/me", ""); res.StatusCode != 403 {
		t.Errorf("put out, after a restart: %d", res.StatusCode)
	}
}

// listener hears what a page is told.
type listener struct {
	t     *testing.T
	url   string
	lines chan string
}

func listen(t *testing.T, h http.Handler) listener {
	t.Helper()
	server := httptest.NewServer(h)
	t.Cleanup(server.Close)
	l := listener{t, server.URL, make(chan string, 64)}
	stream := l.call("GET", "/events", "", "")
	if stream.StatusCode != 200 || stream.Header.Get("Content-Type") != "text/event-stream" {
		t.Fatalf("%d %s", stream.StatusCode, stream.Header.Get("Content-Type"))
	}
	go func() {
		defer close(l.lines)
		for scan := bufio.NewScanner(stream.Body); scan.Scan(); {
			if line, is := strings.CutPrefix(scan.Text(), "data: "); is {
				l.lines <- line
			}
		}
	}()
	return l
}

func (l listener) call(method, path, page, body string) *http.Response {
	l.t.Helper()
	req, err := http.NewRequestWithContext(l.t.Context(), method, l.url+"/api/v1"+path, strings.NewReader(body))
	if err != nil {
		l.t.Fatal(err)
	}
	req.Header.Set("Content-Type", "application/json")
	req.Header.Set(hall.PageHeader, page)
	res, err := http.DefaultClient.Do(req)
	if err != nil {
		l.t.Fatal(err)
	}
	return res
}

func (l listener) hears(want string) {
	l.t.Helper()
	begin := time.Now()
	select {
	case got := <-l.lines:
		if got != want || time.Since(begin) > time.Second {
			l.t.Errorf("%q after %v, want %q", got, time.Since(begin), want)
		}
	case <-time.After(3 * time.Second):
		l.t.Fatalf("nothing arrives, want %q", want)
	}
}

// Whatever a page does to a build, the others hear of it within a second and know who did
// it; the stream ends when the server does.
func TestOthersHear(t *testing.T) {
	data, h := seeded(t)
	l := listen(t, h)
	done := func(res *http.Response) {
		t.Helper()
		if says := text(t, res); res.StatusCode >= 300 {
			t.Fatalf("%d %s", res.StatusCode, says)
		}
	}
	done(l.call("POST", "/builds/1/at", "a", `{"step":5,"device":"a"}`))
	l.hears(`{"kind":"at","build":1,"by":"a","at":{"step":5,"device":"a"}}`)
	changed := `{"kind":"changed","build":1,"by":"a"}`
	b, err := data.Build(t.Context(), 1)
	if err != nil {
		t.Fatal(err)
	}
	for _, act := range [][3]string{
		{"PATCH", "/builds/1/draft", fmt.Sprintf(`{"version":%d,"knobs":{"curl":5}}`, b.Version)},
		{"POST", "/builds/1/tweaks", fmt.Sprintf(`{"version":%d}`, b.Version+1)},
		{"PATCH", "/builds/1", `{"name":"Quay"}`},
		{"DELETE", fmt.Sprintf("/trials/%d", b.Tweaks[0].Trials[0].ID), ""},
		{"POST", fmt.Sprintf("/trials/%d/restore", b.Tweaks[0].Trials[0].ID), ""},
		{"DELETE", "/builds/1", ""},
		{"POST", "/builds/1/restore", ""},
	} {
		done(l.call(act[0], act[1], "a", act[2]))
		l.hears(changed)
	}
	file := filepath.Join(t.TempDir(), "b.tussock")
	if err := data.Backup(t.Context(), file); err != nil {
		t.Fatal(err)
	}
	if _, err := data.Restore(t.Context(), file); err != nil {
		t.Fatal(err)
	}
	l.hears(`{"kind":"all"}`) // by no page
	for path, body := range map[string]string{"/builds/1/at": `{"step":0,"device":"a"}`, "/builds/99/at": `{"step":1,"device":"a"}`} {
		if res := l.call("POST", path, "a", body); res.StatusCode < 400 {
			t.Errorf("%s %s: %d", path, body, res.StatusCode)
		}
	}
	if err := web.Serve(h).Shutdown(t.Context()); err != nil {
		t.Fatal(err)
	}
	select {
	case line, open := <-l.lines:
		if open {
			t.Errorf("more comes after the end: %s", line)
		}
	case <-time.After(3 * time.Second):
		t.Error("the stream does not end")
	}
}

// A guest that is put out hears no more of what the others do.
func TestPutOutHearsNoMore(t *testing.T) {
	data, _ := seeded(t)
	h := shared(t, data)
	in := h.knock(phone, h.Code(), "").Cookies()
	l := listen(t, http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		r.RemoteAddr, r.Host = phone+":5555", strings.TrimPrefix(there, "http://")
		r.AddCookie(in[0])
		h.h.ServeHTTP(w, r)
	}))
	rename := func(name string) {
		t.Helper()
		if _, err := data.Update(t.Context(), 1, func(b *bench.Build) error { b.Name = name; return nil }); err != nil {
			t.Fatal(err)
		}
	}
	rename("Quay")
	l.hears(`{"kind":"changed","build":1}`)
	if err := h.PutOut(t.Context(), h.Devices()[0].ID); err != nil {
		t.Fatal(err)
	}
	rename("Pier")
	select {
	case line, open := <-l.lines:
		if open {
			t.Errorf("put out, it still hears %s", line)
		}
	case <-time.After(3 * time.Second):
		t.Error("the line stays open")
	}
}
