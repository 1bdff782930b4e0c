package web_test

import (
	"encoding/json"
	"fmt"
	"net/http"
	"regexp"
	"strings"
	"sync"
	"testing"
)

// promise is what the API says of its answers, as a page reads it.
type promise struct {
	Paths map[string]map[string]struct {
		Responses map[string]struct {
			Content map[string]struct {
				Schema shape `json:"schema"`
			} `json:"content"`
		} `json:"responses"`
	} `json:"paths"`
	Components struct {
		Schemas map[string]shape `json:"schemas"`
	} `json:"components"`
}

// shape is a schema, as far as it is looked at here.
type shape struct {
	Ref        string           `json:"$ref"`
	Type       any              `json:"type"`
	Items      *shape           `json:"items"`
	Properties map[string]shape `json:"properties"`
	Additional json.RawMessage  `json:"additionalProperties"`
}

var told struct {
	sync.Once
	promise
	err error
}

// holds checks that an answer has no null where a list or a map is promised: a page goes
// through it without asking.
func (c client) holds(method, path string, status int, answer []byte) {
	c.t.Helper()
	told.Do(func() {
		var res *http.Response
		if res, told.err = http.Get(c.url + "/api/v1/openapi.json"); told.err == nil {
			told.err = json.NewDecoder(res.Body).Decode(&told.promise)
			_ = res.Body.Close() // what was read is what counts
		}
	})
	if told.err != nil {
		c.t.Fatal(told.err)
	}
	path, _, _ = strings.Cut("/api/v1"+path, "?")
	for p, operations := range told.Paths {
		if !regexp.MustCompile("^" + regexp.MustCompile(`\{\w+\}`).ReplaceAllString(p, "[^/]+") + "$").MatchString(path) {
			continue
		}
		s, described := operations[strings.ToLower(method)].Responses[fmt.Sprint(status)]
		var v any
		if !described || json.Unmarshal(answer, &v) != nil {
			continue
		}
		for _, at := range told.broken(s.Content["application/json"].Schema, v, "") {
			c.t.Errorf("%s %s answers null as %s, where a list or a map is promised", method, p, at)
		}
	}
}

// broken lists where a value has null in place of a list or a map.
func (p *promise) broken(s shape, v any, at string) (out []string) {
	if s.Ref != "" {
		s = p.Components.Schemas[s.Ref[strings.LastIndex(s.Ref, "/")+1:]]
	}
	switch v := v.(type) {
	case nil:
		if s.Type == "array" || s.Type == "object" && s.Properties == nil {
			out = append(out, at)
		}
	case []any:
		if s.Items == nil {
			return nil
		}
		for i, e := range v {
			out = append(out, p.broken(*s.Items, e, fmt.Sprintf("%s[%d]", at, i))...)
		}
	case map[string]any:
		var each shape
		_ = json.Unmarshal(s.Additional, &each) // it may be false, which tells of no shape
		for name, e := range v {
			if known, ok := s.Properties[name]; ok {
				out = append(out, p.broken(known, e, at+"."+name)...)
			} else {
				out = append(out, p.broken(each, e, at+"."+name)...)
			}
		}
	}
	return out
}

// Every pattern moves on the shelf, or has no path to show: the card goes through it.
func TestPreviewsKeepTheirPromise(t *testing.T) {
	c := serve(t, false)
	for _, p := range ask[[]struct{ ID string }](c, "GET", "/patterns", "") {
		v := ask[struct {
			Mode string
			Loop []any
		}](c, "GET", "/patterns/"+p.ID+"/preview", "")
		if v.Loop == nil {
			t.Errorf("%s: no list of moments", p.ID)
		}
	}
}
