package web_test

import (
	"bufio"
	"net/http"
	"net/http/httptest"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"tussock/internal/bench"
	"tussock/internal/store"
	"tussock/internal/web"
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

// shared serves to the network; requests of the answer come from another machine.
func shared(t *testing.T) (_ *hall.Sharing, send func(path string, cookies []*http.Cookie, change func(*http.Request)) *http.Response) {
	t.Helper()
	data := kept(t)
	s, err := hall.NewSharing("http://192.168.7.2:7340")
	if err != nil {
		t.Fatal(err)
	}
	h, err := web.NewShared(data, nil, s)
	if err != nil {
		t.Fatal(err)
	}
	return s, func(path string, cookies []*http.Cookie, change func(*http.Request)) *http.Response {
		r := httptest.NewRequest(http.MethodGet, "http://192.168.7.2:7340"+path, nil)
		r.RemoteAddr = "192.168.7.9:5555"
		for _, c := range cookies {
			r.AddCookie(c)
		}
		if change != nil {
			change(r)
		}
		w := httptest.NewRecorder()
		h.ServeHTTP(w, r)
		return w.Result()
	}
}

// Each code lets one device in, once; without one nobody gets in; a name instead of an
// address is refused; after many wrong codes even the right one waits.
func TestSharingByOneTimeCode(t *testing.T) {
	s, send := shared(t)
	if res := send("/api/v1/health", nil, nil); res.StatusCode != 403 {
		t.Errorf("without a code: %d", res.StatusCode)
	}
	code := s.Code()
	if len(code) != hall.CodeLength || strings.ContainsAny(code, "01IO") {
		t.Errorf("code %q", code)
	}
	in := send("/join?code="+strings.ToLower(code), nil, nil)
	if in.StatusCode != 303 || len(in.Cookies()) != 1 || !in.Cookies()[0].HttpOnly {
		t.Fatalf("with the code: %d, %v", in.StatusCode, in.Cookies())
	}
	if res := send("/api/v1/health", in.Cookies(), nil); res.StatusCode != 200 {
		t.Errorf("with the cookie: %d", res.StatusCode)
	}
	if res := send("/join?code="+code, nil, nil); res.StatusCode != 403 || s.Code() == code {
		t.Error("a code works twice")
	}
	if res := send("/api/v1/health", []*http.Cookie{{Name: hall.Cookie, Value: "made-up"}}, nil); res.StatusCode != 403 {
		t.Errorf("with a made-up cookie: %d", res.StatusCode)
	}
	if res := send("/api/v1/health", in.Cookies(), func(r *http.Request) { r.Host = "hall.example" }); res.StatusCode != 403 {
		t.Errorf("by a name: %d", res.StatusCode)
	}
	// Saying that one is this machine does not make it so.
	if res := send("/api/v1/health", nil, func(r *http.Request) { r.Host = "127.0.0.1:7340" }); res.StatusCode != 403 {
		t.Errorf("pretending to be local: %d", res.StatusCode)
	}
	for range hall.MostWrong {
		send("/join?code=WRONG", nil, nil)
	}
	if res := send("/join?code="+s.Code(), nil, nil); res.StatusCode != 403 {
		t.Error("the right code is taken at once after many wrong ones")
	}
	s.Now = func() time.Time { return time.Now().Add(2 * hall.RestFor) }
	if res := send("/join?code="+s.Code(), nil, nil); res.StatusCode != 303 {
		t.Error("the right code is not taken after the rest")
	}
	qr, err := s.QR()
	if err != nil || len(qr) < 21 || len(qr) != len(qr[0]) {
		t.Errorf("%d rows, %v", len(qr), err)
	}
	if words, err := s.Words(); err != nil || !strings.Contains(words, s.Code()) {
		t.Errorf("%v", err)
	}
}

// A move on one device reaches the other within a second; builds do not hear of each
// other; the stream ends when the server does.
func TestProgressReachesOtherDevices(t *testing.T) {
	data := kept(t)
	for range 2 {
		if _, err := data.CreateBuild(t.Context(), bench.Build{Pattern: "curlew", Name: "b", Draft: &bench.Setup{}}); err != nil {
			t.Fatal(err)
		}
	}
	h, err := web.New(data, nil)
	if err != nil {
		t.Fatal(err)
	}
	server := httptest.NewServer(h)
	defer server.Close()
	call := func(method, path, body string) *http.Response {
		t.Helper()
		req, err := http.NewRequestWithContext(t.Context(), method, server.URL+path, strings.NewReader(body))
		if err != nil {
			t.Fatal(err)
		}
		req.Header.Set("Content-Type", "application/json")
		res, err := http.DefaultClient.Do(req)
		if err != nil {
			t.Fatal(err)
		}
		return res
	}
	stream := call("GET", "/api/v1/builds/1/progress", "")
	if stream.StatusCode != 200 || stream.Header.Get("Content-Type") != "text/event-stream" {
		t.Fatalf("%d %s", stream.StatusCode, stream.Header.Get("Content-Type"))
	}
	lines := make(chan string, 16)
	go func() {
		defer close(lines)
		for scan := bufio.NewScanner(stream.Body); scan.Scan(); {
			if l := scan.Text(); strings.HasPrefix(l, "data:") {
				lines <- l
			}
		}
	}()
	for path, body := range map[string]string{"/api/v1/builds/2/at": `{"step":9,"device":"b"}`} {
		if err := call("POST", path, body).Body.Close(); err != nil {
			t.Fatal(err)
		}
	}
	begin := time.Now()
	if err := call("POST", "/api/v1/builds/1/at", `{"step":5,"device":"a"}`).Body.Close(); err != nil {
		t.Fatal(err)
	}
	select {
	case l := <-lines:
		if l != `data: {"step":5,"device":"a"}` || time.Since(begin) > time.Second {
			t.Errorf("%q after %v", l, time.Since(begin))
		}
	case <-time.After(3 * time.Second):
		t.Fatal("nothing arrives")
	}
	for path, body := range map[string]string{"/api/v1/builds/1/at": `{"step":0,"device":"a"}`, "/api/v1/builds/99/at": `{"step":1,"device":"a"}`} {
		if res := call("POST", path, body); res.StatusCode < 400 {
			t.Errorf("%s %s: %d", path, body, res.StatusCode)
		}
	}
	if res := call("GET", "/api/v1/builds/99/progress", ""); res.StatusCode != 404 {
		t.Errorf("a build that is not there: %d", res.StatusCode)
	}
	if err := web.Serve(h).Shutdown(t.Context()); err != nil {
		t.Fatal(err)
	}
	select {
	case _, open := <-lines:
		if open {
			t.Error("more comes after the end")
		}
	case <-time.After(3 * time.Second):
		t.Error("the stream does not end")
	}
}
