package attack

import (
	"context"
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"net/http/httptest"
	"net/url"
	"path/filepath"
	"regexp"
	"slices"
	"sort"
	"strings"
	"testing"
	"time"

	"tussock/internal/demo"
	"tussock/internal/store"
	"tussock/internal/web"
)

// hall is a server of this process on the demo data.
func hall(t *testing.T) (url string, s *store.Store) {
	t.Helper()
	s, err := store.Open(t.Context(), filepath.Join(t.TempDir(), "t.db"))
	if err != nil {
		t.Fatal(err)
	}
	if err := demo.Seed(t.Context(), s); err != nil {
		t.Fatal(err)
	}
	h, err := web.New(s, nil)
	if err != nil {
		t.Fatal(err)
	}
	server := httptest.NewServer(h)
	t.Cleanup(func() {
		server.Close()
		closed(t, s)
	})
	return server.URL, s
}

type schema struct {
	Ref        string             `json:"$ref"`
	Type       any                `json:"type"`
	Format     string             `json:"format"`
	Enum       []any              `json:"enum"`
	Properties map[string]*schema `json:"properties"`
	Required   []string           `json:"required"`
	Items      *schema            `json:"items"`
	Additional any                `json:"additionalProperties"`
	Minimum    *float64           `json:"minimum"`
}

type operation struct {
	ID         string `json:"operationId"`
	Parameters []struct {
		Name, In string
		Schema   schema
	}
	RequestBody struct {
		Content map[string]struct{ Schema schema }
	}
}

type description struct {
	Paths      map[string]map[string]operation
	Components struct{ Schemas map[string]*schema }
}

// likely are values that get past the first checks, by the name of the field.
var likely = map[string]string{
	"pattern": `"curlew"`, "unit": `"mm"`, "width": "210", "height": "297", "gsm": "80", "thickness_mm": "0.1", "width_mm": "210", "height_mm": "297",
	"knobs": `{"curl":4}`, "read": `{"distance":5}`, "aim": `"distance"`, "lever": `"curl"`, "what": `"parts"`, "part": "1", "of": "3", "kind": `""`, "parts": "3", "from": `{"width_mm":297,"height_mm":420,"want":{"kind":"square"}}`,
	"seen": `["glided"]`, "front": `"#fdf8ea"`, "back": `"#b5c9c4"`, "version": "1", "step": "3", "key": `"k"`, "made": "[]", "recipes": "{}", "levers": `[{"name":"curl","min":0,"max":8}]`,
	"conditions": "{}", "ghosts": "[]", "measured": "{}", "name": `"Quay"`,
}

// fits tells whether a likely value is of a kind that is allowed.
func fits(text, kind string) bool {
	of := map[byte]string{'"': "string", '{': "object", '[': "array"}[text[0]]
	if of == "" {
		return strings.Contains(kind, "number") || strings.Contains(kind, "integer")
	}
	return strings.Contains(kind, of) || of == "object" && strings.Contains(kind, "schemas")
}

// sample is a body that the description allows, most fields of it filled.
func (d description) sample(s *schema, name string, depth int) any {
	if text, known := likely[name]; known && fits(text, fmt.Sprint(s.Type, s.Ref)) {
		return json.RawMessage(text)
	}
	if depth > 12 {
		return nil
	}
	if s.Ref != "" {
		return d.sample(d.Components.Schemas[s.Ref[strings.LastIndex(s.Ref, "/")+1:]], name, depth+1)
	}
	if len(s.Enum) > 0 {
		return s.Enum[0]
	}
	if s.Format == "date-time" {
		return "2026-11-29T15:40:00Z"
	}
	switch kind := fmt.Sprint(s.Type); {
	case strings.Contains(kind, "object"):
		out := map[string]any{}
		for k, p := range s.Properties {
			if k != "$schema" {
				out[k] = d.sample(p, k, depth+1)
			}
		}
		return out
	case strings.Contains(kind, "array"):
		return []any{d.sample(s.Items, "", depth+1)}
	case strings.Contains(kind, "string"):
		return "x"
	case strings.Contains(kind, "boolean"):
		return false
	}
	return 1
}

// hostile are values that are wrong nearly everywhere, as they stand in a body.
var hostile = []string{`NaN`, `1e999`, `1e308`, `-1e308`, `-1`, `0`, `9223372036854775808`, `""`, `"` + strings.Repeat("Ω", 6000) + `"`, `"\u0000\u001b[2J'); DROP TABLE builds; --"`,
	`null`, `true`, `[]`, `{}`, `[[[[]]]]`, strings.Repeat("[", 3000) + strings.Repeat("]", 3000), `{"a":{"a":{"a":1e400}}}`}

// bodies are a body with one value after the other replaced by what is hostile.
func bodies(whole any) []string {
	var out []string
	var walk func(v any, put func(string) string)
	walk = func(v any, put func(string) string) {
		for _, h := range hostile {
			out = append(out, put(h))
		}
		if raw, is := v.(json.RawMessage); is {
			if json.Unmarshal(raw, &v) != nil {
				return
			}
		}
		switch x := v.(type) {
		case map[string]any:
			var names []string
			for k := range x {
				names = append(names, k)
			}
			sort.Strings(names)
			for _, k := range names {
				walk(x[k], func(with string) string {
					parts := make([]string, len(names))
					for i, n := range names {
						b, err := json.Marshal(x[n])
						if err != nil {
							panic(err) // it was read from JSON
						}
						parts[i] = fmt.Sprintf("%q:%s", n, b)
						if n == k {
							parts[i] = fmt.Sprintf("%q:%s", n, with)
						}
					}
					return put("{" + strings.Join(parts, ",") + "}")
				})
			}
		case []any:
			if len(x) > 0 {
				walk(x[0], func(with string) string { return put("[" + with + "]") })
			}
		}
	}
	walk(whole, func(s string) string { return s })
	return append(out, "", "{", "not json", `{"a":1}`)
}

// leaks are words that are for whoever runs this, not for who asks.
var leaks = regexp.MustCompile(`(?i)error marshaling|sqlite|SQL logic|no such table|constraint failed|panic|goroutine|runtime error|\.go:\d|/tmp/|/home/|/root/`)

// request is one attack on a route.
type request struct{ method, path, body, id string }

// every route with its body and its numbers made wrong.
func requests(d description) []request {
	var out []request
	for path, methods := range d.Paths {
		for method, op := range methods {
			at, query := path, url.Values{}
			for _, p := range op.Parameters {
				switch {
				case p.In == "path" && strings.Contains(fmt.Sprint(p.Schema.Type), "integer"):
					at = strings.Replace(at, "{"+p.Name+"}", "1", 1)
				case p.In == "path" && p.Name == "day":
					at = strings.Replace(at, "{day}", "2026-11-29", 1)
				case p.In == "path":
					at = strings.Replace(at, "{"+p.Name+"}", "curlew", 1)
				case p.In == "query":
					query.Set(p.Name, "1")
				}
			}
			add := func(path string, q url.Values, body string) {
				if len(q) > 0 {
					path += "?" + q.Encode()
				}
				out = append(out, request{strings.ToUpper(method), path, body, op.ID})
			}
			good := ""
			for _, c := range op.RequestBody.Content {
				whole := d.sample(&c.Schema, "", 0)
				for _, b := range bodies(whole) {
					add(at, query, b)
				}
				if b, err := json.Marshal(whole); err == nil {
					good = string(b)
				}
			}
			for _, p := range op.Parameters {
				for _, bad := range []string{"NaN", "Inf", "-Inf", "1e308", "-1", "0", "", "abc", "99999999", "9223372036854775808", "%00", "..%2f..", strings.Repeat("9", 5000)} {
					if p.In == "query" {
						q := url.Values{}
						for k := range query {
							q.Set(k, query.Get(k))
						}
						q.Set(p.Name, bad)
						add(at, q, good)
						continue
					}
					add(strings.Replace(path, "{"+p.Name+"}", bad, 1), query, good)
				}
			}
		}
	}
	slices.SortFunc(out, func(a, b request) int { return strings.Compare(a.method+a.path+a.body, b.method+b.path+b.body) })
	return out
}

// Whatever is sent to a route, it is answered with an answer or with a sentence: nothing
// breaks inside, nothing of the inside is told, and the builds that nobody named are as
// they were.
func TestNonsenseOnEveryRoute(t *testing.T) {
	home, s := hall(t)
	_, text := call(t.Context(), "GET", home+"/api/v1/openapi.json", "")
	var d description
	if err := json.Unmarshal([]byte(text), &d); err != nil {
		t.Fatal(err)
	}
	before, err := s.Build(t.Context(), 2)
	if err != nil {
		t.Fatal(err)
	}
	all := requests(d)
	r := rand.New(rand.NewPCG(9, 4))
	r.Shuffle(len(all), func(i, k int) { all[i], all[k] = all[k], all[i] })
	if n := rounds(1500, len(all)); n < len(all) {
		// Numbers that are none have broken routes before: these are tried each time.
		none := regexp.MustCompile(`=(NaN|-?Inf)`)
		rest := slices.DeleteFunc(slices.Clone(all[n:]), func(q request) bool { return !none.MatchString(q.path) })
		all = append(all[:n], rest...)
	}
	routes := map[string]bool{}
	bad := 0
	for _, q := range all {
		routes[q.id] = true
		_ = before
		ctx, stop := context.WithTimeout(t.Context(), 4*time.Second)
		status, answer := call(ctx, q.method, home+q.path, q.body)
		gone := ctx.Err() != nil
		stop()
		switch {
		case gone: // a question that takes long was called off
		case status == 500 || status == 0 || leaks.MatchString(answer):
			bad++
			t.Errorf("%s %.200s %.300s\nanswers %d %.300s", q.method, q.path, q.body, status, answer)
		case status >= 400 && !json.Valid([]byte(answer)):
			bad++
			t.Errorf("%s %.200s %.300s\nanswers %d without a sentence: %.200s", q.method, q.path, q.body, status, answer)
		}
		if bad > 12 {
			t.Fatal("and so on")
		}
	}
	note(fmt.Sprintf("nonsense on %d routes", len(d.Paths)), len(all), len(all)-bad, bad)
	if len(routes) < 40 {
		t.Errorf("only %d routes were tried", len(routes))
	}
	after, err := s.Build(t.Context(), 2)
	if err != nil || len(after.Tweaks) != len(before.Tweaks) || after.Trials() != before.Trials() {
		t.Errorf("a build that nobody named is changed: %v", err)
	}
	if status, _ := call(t.Context(), "GET", home+"/api/v1/builds", ""); status != 200 {
		t.Errorf("afterwards the list answers %d", status)
	}
}
