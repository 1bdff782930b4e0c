package packs_test

import (
	"errors"
	"reflect"
	"slices"
	"strings"
	"testing"
	"unicode"

	"tussock/internal/given"
	"tussock/internal/packs"
)

// What ships: ten packs and more in several kinds, in five languages, each with an age; actions
// say how much floor they need; sums come out.
func TestShipped(t *testing.T) {
	all, err := packs.Shipped()
	if err != nil {
		t.Fatal(err)
	}
	kinds, languages := map[string]bool{}, map[string]bool{}
	for _, p := range all {
		kinds[p.Kind], languages[p.Language] = true, true
		if len(p.Words) < 4 || len(p.Entries) < 8 || p.ToAge <= p.FromAge || !p.Read {
			t.Errorf("%s: %d words, %d messages, ages %d to %d", p.ID, len(p.Words), len(p.Entries), p.FromAge, p.ToAge)
		}
		if packs.Active(p.Kind) != (p.Space != "") {
			t.Errorf("%s says of the floor: %q", p.ID, p.Space)
		}
		for _, e := range p.Entries {
			if n := len([]rune(e.Text)); n > 52 {
				t.Errorf("%s: %q has %d letters", p.ID, e.Text, n)
			}
			if (p.Kind == "riddles" || p.Kind == "sums" || p.Kind == "fractions") != (e.Answer != "") {
				t.Errorf("%s: the answer of %q is %q", p.ID, e.Text, e.Answer)
			}
			if p.Kind == "sums" {
				if got, ok := worth(e.Text); !ok || got != e.Answer {
					t.Errorf("%s: %s is %s, not %s", p.ID, e.Text, got, e.Answer)
				}
			}
		}
		odd := 0
		for _, w := range p.Words[:4] {
			for _, r := range w {
				if !unicode.IsLetter(r) {
					t.Errorf("%s: %q cannot be spelled", p.ID, w)
				}
			}
			odd += len([]rune(w)) % 2
		}
		if odd == 0 || odd == 4 {
			t.Errorf("%s: words of one parity, %v", p.ID, p.Words)
		}
	}
	if len(all) < 10 || len(kinds) < 10 || len(languages) < 5 {
		t.Errorf("%d packs, %d kinds, %d languages", len(all), len(kinds), len(languages))
	}
}

// worth of "12 × 5", reckoned by adding up.
func worth(sum string) (string, bool) {
	f := strings.Fields(sum)
	if len(f) != 3 {
		return "", false
	}
	n := func(s string) (v int) {
		for _, r := range s {
			v = 10*v + int(r-'0')
		}
		return v
	}
	a, b := n(f[0]), n(f[2])
	v := 0
	switch f[1] {
	case "+":
		v = a + b
	case "−":
		v = a - b
	case "×":
		for range b {
			v += a
		}
	case "÷":
		for v*b < a {
			v++
		}
		if v*b != a {
			return "", false
		}
	}
	out := ""
	for first := true; v > 0 || first; v /= 10 {
		out, first = string(rune('0'+v%10))+out, false
	}
	return out, true
}

// A pack goes through both kinds of file and comes back the same.
func TestFilesComeBack(t *testing.T) {
	all, err := packs.Shipped()
	if err != nil {
		t.Fatal(err)
	}
	all[0].Entries = append(all[0].Entries, packs.Entry{Text: "=SUM(A1)", Answer: "-1, \"quoted\""})
	for _, p := range all {
		for _, write := range []func() ([]byte, error){p.JSON, p.CSV} {
			text, err := write()
			if err != nil {
				t.Fatal(err)
			}
			if strings.Contains(string(text), "\n=") || strings.Contains(string(text), ",=") {
				t.Errorf("%s holds a formula", p.ID)
			}
			got, err := packs.Parse(string(text))
			if err != nil {
				t.Fatalf("%s: %v", p.ID, err)
			}
			if got.Read || got.Ships {
				t.Errorf("%s comes in as approved", p.ID)
			}
			got.ID, got.Ships, got.Read = p.ID, p.Ships, p.Read
			if !reflect.DeepEqual(got, p) {
				t.Errorf("%s came back as %+v", p.ID, got)
			}
		}
	}
}

// A list that is read back has the same messages, whatever signs they hold.
func TestListsComeBack(t *testing.T) {
	all, err := packs.Shipped()
	if err != nil {
		t.Fatal(err)
	}
	all = append(all, packs.Pack{Entries: []packs.Entry{{Text: "3 + 4 = ?"}, {Text: "3 + 4 = ?", Answer: "7"}, {Text: "what is x", Answer: "x = y = 2"}, {Text: "a = b", Answer: "c = d"}, {Text: "plain"}}})
	for _, p := range all {
		if got := packs.Listed(p.List()); !slices.Equal(got, p.Entries) {
			t.Errorf("%s came back as %+v from\n%s", p.Title, got, p.List())
		}
	}
}

func TestPastedLists(t *testing.T) {
	p, err := packs.Parse("  Hop once \r\n\nHop once\nWhat has teeth? = a comb\nA\tB\n")
	if err != nil {
		t.Fatal(err)
	}
	want := []packs.Entry{{Text: "Hop once"}, {Text: "What has teeth?", Answer: "a comb"}, {Text: "A", Answer: "B"}}
	if !reflect.DeepEqual(p.Entries, want) || p.Kind != "own" {
		t.Errorf("%+v", p)
	}
	for text, field := range map[string]string{
		"":                               "text",
		"{":                              "text",
		`{"title":"x","colour":1}`:       "text",
		"what,text,answer\nages,six,7\n": "row 2",
		"what,text,answer\nspell,A\n":    "row 2",
		`{"title":"","entries":[]}`:      "title",
		`{"title":"x","entries":[]}`:     "entries",
		`{"title":"x","kind":"rude"}`:    "kind",
		`{"title":"x","kind":"actions indoors","entries":[{"text":"hop"}]}`: "space",
		strings.Repeat("a", 200): "entries[0]",
	} {
		_, err := packs.Parse(text)
		var g *given.Error
		if !errors.As(err, &g) || g.Field != field {
			t.Errorf("%q: %v, want a word about %s", text, err, field)
		}
	}
}

// A draw has no message twice as long as there are enough, is the same for the same seed, and
// differs for another.
func TestDraw(t *testing.T) {
	all, err := packs.Shipped()
	if err != nil {
		t.Fatal(err)
	}
	for _, p := range all {
		_, first := p.Draw(4, 8, 1)
		_, again := p.Draw(4, 8, 1)
		words, other := p.Draw(4, 8, 2)
		if !slices.Equal(first, again) || slices.Equal(first, other) || len(words) != 4 {
			t.Errorf("%s: %v, %v, %v", p.ID, first, again, other)
		}
		for i, e := range first {
			if slices.Contains(first[:i], e) {
				t.Errorf("%s draws %q twice of %d", p.ID, e.Text, len(p.Entries))
			}
		}
	}
}

func FuzzParse(f *testing.F) {
	f.Add("what,text,answer\nword,RED,\nmessage,Hop,\n")
	f.Add("a = b\nc")
	f.Fuzz(func(t *testing.T, text string) {
		p, err := packs.Parse(text)
		if err != nil {
			return
		}
		out, err := p.CSV()
		if err != nil {
			t.Fatal(err)
		}
		back, err := packs.Parse(string(out))
		if err != nil {
			t.Fatalf("%q: %v", out, err)
		}
		if len(back.Entries) == 0 || len(p.Entries) != len(back.Entries) {
			t.Errorf("%d messages came back as %d", len(p.Entries), len(back.Entries))
		}
	})
}
