package web_test

import (
	"encoding/xml"
	"errors"
	"fmt"
	"io"
	"net/http"
	"net/http/httptest"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"github.com/jmoiron/sqlx"

	"tussock/internal/bench"
	"tussock/internal/demo"
	"tussock/internal/store"
	"tussock/internal/web"
	"tussock/internal/web/builds"
)

// seeded is the demo data with what serves them.
func seeded(t *testing.T) (*store.Store, http.Handler) {
	t.Helper()
	data := kept(t)
	if err := demo.Seed(t.Context(), data); err != nil {
		t.Fatal(err)
	}
	h, err := web.New(data, nil)
	if err != nil {
		t.Fatal(err)
	}
	return data, h
}

// Names that do not print, and names as wide as can be, make sound pictures and pages:
// well-formed, and no word beyond the paper.
func TestOddNamesOnPaper(t *testing.T) {
	data, h := seeded(t)
	server := httptest.NewServer(h)
	defer server.Close()
	c := client{t, server.URL}
	if b := ask[builds.BuildView](c, "PATCH", "/builds/1", `{"name":"  A\u0000\u001b[2J\nB \u202e quay  "}`); b.Name != "A [2J B quay" {
		t.Errorf("it is called %q", b.Name)
	}
	for _, name := range []string{strings.Repeat("W", 60), strings.Repeat("W", 80), "a\x01\x1b[31m\r\nb\x7f", "]]>&<svg onload=x>\"'", strings.Repeat("﷽", 60), "\u202eyauq"} {
		// As an old file may still have it.
		if _, err := data.Update(t.Context(), 1, func(b *bench.Build) error { b.Name = name; return nil }); err != nil {
			t.Fatal(err)
		}
		for _, path := range []string{"print?format=svg", "print?format=svg&page=letter&face=both", "step-sheets?format=svg", "step-sheets?format=svg&style=large", "steps/3/picture"} {
			status, body := c.send("GET", "/builds/1/"+path, "")
			if status != 200 {
				t.Fatalf("%s: %d %.200s", path, status, body)
			}
			for d := xml.NewDecoder(strings.NewReader(string(body))); ; {
				if _, err := d.Token(); errors.Is(err, io.EOF) {
					break
				} else if err != nil {
					t.Errorf("%q on %s: %v", name, path, err)
					break
				}
			}
			if strings.Contains(string(body), "<svg onload") {
				t.Errorf("%q becomes markup on %s", name, path)
			}
		}
		for _, path := range []string{"print", "print?page=letter&face=both", "step-sheets", "step-sheets?style=large", "step-sheets?style=summary"} {
			status, body := c.send("GET", "/builds/1/"+path, "")
			if status != 200 {
				t.Fatalf("%s: %d %.200s", path, status, body)
			}
			onPaper(t, fmt.Sprintf("%.12q on %s", name, path), body)
		}
		if status, body := c.send("GET", "/builds/1/trials.csv", ""); status != 200 || !strings.Contains(string(body), "Distance, m") {
			t.Errorf("%q as a table: %d, %d lines", name, status, strings.Count(string(body), "\r\n"))
		}
	}
}

var (
	pageBox = regexp.MustCompile(`<page width="([\d.]+)" height="([\d.]+)"`)
	wordBox = regexp.MustCompile(`<word xMin="(-?[\d.]+)" yMin="(-?[\d.]+)" xMax="(-?[\d.]+)" yMax="(-?[\d.]+)">`)
)

// onPaper checks that every word of a PDF lies on its page.
func onPaper(t *testing.T, what string, pdf []byte) {
	t.Helper()
	file := filepath.Join(t.TempDir(), "p.pdf")
	if err := os.WriteFile(file, pdf, 0o600); err != nil {
		t.Fatal(err)
	}
	out, err := exec.CommandContext(t.Context(), "pdftotext", "-bbox", file, "-").Output()
	if err != nil {
		t.Fatalf("pdftotext (make test installs it): %v", err)
	}
	number := func(s string) float64 {
		v, err := strconv.ParseFloat(s, 64)
		if err != nil {
			t.Fatal(err)
		}
		return v
	}
	words := 0
	for _, page := range strings.Split(string(out), "</page>") {
		p := pageBox.FindStringSubmatch(page)
		if p == nil {
			continue
		}
		for _, w := range wordBox.FindAllStringSubmatch(page, -1) {
			words++
			if number(w[1]) < -1 || number(w[3]) > number(p[1])+1 || number(w[2]) < -3 || number(w[4]) > number(p[2])+3 {
				t.Errorf("%s: a word at %v leaves the page of %v", what, w[1:], p[1:])
			}
		}
	}
	if words < 5 {
		t.Errorf("%s has %d words", what, words)
	}
}

// When another program holds the data file, a change is answered with 503 and when to try
// again, in a sentence and without a word of the database; questions are answered.
func TestBusyFile(t *testing.T) {
	if testing.Short() {
		t.Skip("waits as long as a change does")
	}
	data, h := seeded(t)
	server := httptest.NewServer(h)
	defer server.Close()
	other, err := sqlx.Open("sqlite", "file:"+data.Path+"?_txlock=immediate")
	if err != nil {
		t.Fatal(err)
	}
	tx, err := other.BeginTxx(t.Context(), nil)
	if err != nil {
		t.Fatal(err)
	}
	req, err := http.NewRequestWithContext(t.Context(), http.MethodPatch, server.URL+"/api/v1/builds/1", strings.NewReader(`{"name":"Quay"}`))
	if err != nil {
		t.Fatal(err)
	}
	req.Header.Set("Content-Type", "application/json")
	res, err := http.DefaultClient.Do(req)
	if err != nil {
		t.Fatal(err)
	}
	says := text(t, res)
	if res.StatusCode != http.StatusServiceUnavailable || res.Header.Get("Retry-After") == "" || !strings.Contains(says, "try again") || strings.Contains(strings.ToLower(says), "sql") {
		t.Errorf("%d %v %s", res.StatusCode, res.Header, says)
	}
	c := client{t, server.URL}
	if b := ask[builds.BuildView](c, "GET", "/builds/1", ""); b.Name != "Leaflet Curlew" {
		t.Errorf("it is called %q", b.Name)
	}
	if err := errors.Join(tx.Rollback(), other.Close()); err != nil {
		t.Fatal(err)
	}
	if b := ask[builds.BuildView](c, "PATCH", "/builds/1", `{"name":"Quay"}`); b.Name != "Quay" {
		t.Errorf("afterwards it is called %q", b.Name)
	}
}

// A sheet that does not suit is no fault of a step.
func TestNoStepIsToBlameForASheet(t *testing.T) {
	c := serve(t, false)
	oblong := `{"sheet":{"width":210,"height":205,"unit":"mm","gsm":80,"thickness_mm":0.1}}`
	for _, what := range []string{"prediction", "care", "steps/3/glance"} {
		if status, answer := c.send("POST", "/patterns/fortune/"+what, oblong); status != 422 || strings.Contains(string(answer), "step 0") || !strings.Contains(string(answer), "from a square") {
			t.Errorf("%s: %d %s", what, status, answer)
		}
	}
}
