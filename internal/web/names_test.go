package web_test

import (
	"encoding/json"
	"fmt"
	"regexp"
	"slices"
	"strings"
	"testing"

	"tussock/internal/sequence"
	"tussock/internal/shelf"
)

// A name that the author called nothing is for the program alone: whoever folds hears
// what the landmark is, wherever it is spoken of.
func TestNamesAreWords(t *testing.T) {
	if testing.Short() {
		t.Skip("asks for every step of every pattern")
	}
	c := serve(t, false)
	shelved, err := shelf.All()
	if err != nil {
		t.Fatal(err)
	}
	studied, err := shelf.Studies()
	if err != nil {
		t.Fatal(err)
	}
	made := 0
	for i, p := range slices.Concat(shelved, studied) {
		raw := rawNames(p)
		made += len(raw)
		sheet := fmt.Sprintf(`{"sheet":{"width":%v,"height":%v,"unit":"mm","gsm":80,"thickness_mm":0.1}}`, p.WidthMM, p.HeightMM)
		answers := map[string]string{}
		asked := func(method, path, body string) {
			_, b := c.send(method, path, body)
			answers[path] = string(b)
		}
		asked("GET", "/studies/"+p.ID, "")
		if i < len(shelved) {
			at := "/patterns/" + p.ID
			asked("POST", at+"/care", sheet)
			asked("POST", at+"/replay", `{"sheet":{"width":90,"height":97,"unit":"mm","gsm":80,"thickness_mm":0.1}}`) // where it cannot be folded
			answers["on its own sheet"] = string(mustAnswer(c, at+"/replay", sheet))
			for no := 1; no <= len(p.Steps); no += 3 {
				step := fmt.Sprintf("%s/steps/%d/", at, no)
				asked("POST", step+"look", sheet)
				asked("POST", step+"slip", sheet)
				asked("POST", step+"placements", sheet)
			}
		}
		for what, text := range answers {
			var v any
			if err := json.Unmarshal([]byte(text), &v); err != nil {
				t.Fatalf("%s %s: %v", p.ID, what, err)
			}
			spoken(v, "", func(field, text string) {
				for name, sees := range raw {
					if sees.MatchString(text) {
						t.Errorf("%s %s says in %s: %q, with the name %s", p.ID, what, field, text, name)
					}
				}
			})
		}
	}
	if made < 50 {
		t.Errorf("only %d names were looked for", made)
	}
}

func mustAnswer(c client, path, body string) []byte {
	c.t.Helper()
	status, b := c.send("POST", path, body)
	if status != 200 {
		c.t.Fatalf("%s: %d %s", path, status, b)
	}
	return b
}

// rawNames are names of landmarks that are no words, with what finds them in a sentence.
func rawNames(p *sequence.Pattern) map[string]*regexp.Regexp {
	out := map[string]*regexp.Regexp{}
	for name, words := range p.MadeWords {
		if strings.ContainsAny(name, "0123456789") || strings.ToLower(name) != name {
			out[name] = regexp.MustCompile(`\b` + name + `\b`)
		}
		if words == name || words == "" {
			out[name] = regexp.MustCompile(`.`)
		}
	}
	return out
}

// spoken calls a function with every sentence of an answer.
func spoken(v any, field string, each func(field, text string)) {
	switch v := v.(type) {
	case map[string]any:
		for k, x := range v {
			spoken(x, k, each)
		}
	case []any:
		for _, x := range v {
			spoken(x, field, each)
		}
	case string:
		// The text of a statement is the language's own; what it draws is no sentence.
		if field != "text" && field != "d" && strings.Contains(v, " ") {
			each(field, v)
		}
	}
}
