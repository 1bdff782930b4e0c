// Package packs is what toys are filled with: words to spell and messages of one kind, for an
// age and in a language. Packs are files that people read, change and hand on.
package packs

import (
	"embed"
	"encoding/json"
	"fmt"
	"io/fs"
	"regexp"
	"slices"
	"sort"
	"strings"
	"sync"

	"tussock/internal/given"
	"tussock/internal/say"
)

// Pack is a set of words and messages.
type Pack struct {
	ID       string   `json:"id"`
	Title    string   `json:"title"`
	Kind     string   `json:"kind"`
	FromAge  int      `json:"from_age"`
	ToAge    int      `json:"to_age"`
	Language string   `json:"language"` // two letters, as ISO 639-1 has them
	Space    string   `json:"space,omitempty"`
	Words    []string `json:"words"` // to spell
	Entries  []Entry  `json:"entries"`
	Read     bool     `json:"read"` // a leader has read it and approves
	Ships    bool     `json:"ships"`
}

// Entry is a message, with its answer where it asks something.
type Entry struct {
	Text   string `json:"text"`
	Answer string `json:"answer,omitempty"`
}

// Kinds of packs.
var Kinds = []string{"wishes", "actions indoors", "actions outdoors", "riddles", "sums", "fractions", "reading words", "facts", "story starters", "drawing dares", "charades", "own"}

// Active tells whether what a kind says is done with the body: it needs floor.
func Active(kind string) bool { return strings.HasPrefix(kind, "actions") || kind == "charades" }

// Limits of a pack.
const (
	MostEntries = 200
	MostWords   = 40
	MostTitle   = 80
	MostText    = 120
	MostSpace   = 300
	MostAge     = 120
	leastWords  = 1
)

// Languages are those that the print's font holds, by their codes.
var Languages = map[string]string{
	"en": "English", "de": "Deutsch", "fr": "Français", "es": "Español", "it": "Italiano", "pt": "Português", "nl": "Nederlands", "pl": "Polski", "cs": "Čeština", "sv": "Svenska",
	"da": "Dansk", "nb": "Norsk", "fi": "Suomi", "hu": "Magyar", "ro": "Română", "tr": "Türkçe", "el": "Ελληνικά", "ru": "Русский", "uk": "Українська",
}

var idShape = regexp.MustCompile(`^[a-z0-9][a-z0-9-]{0,39}$`)

// Clean is a pack as it is kept: texts in one line, empty and repeated ones left out. The error
// is a *given.Error.
func (p Pack) Clean() (Pack, error) {
	p.Title, p.Space, p.Kind = say.OneLine(p.Title), say.OneLine(p.Space), say.OneLine(p.Kind)
	if n := len([]rune(p.Title)); n < 1 || n > MostTitle {
		return p, &given.Error{Field: "title", Value: p.Title, Want: fmt.Sprintf("1 to %d characters", MostTitle)}
	}
	if p.Kind == "" {
		p.Kind = "own"
	}
	if !slices.Contains(Kinds, p.Kind) {
		return p, &given.Error{Field: "kind", Value: p.Kind, Want: "one of " + strings.Join(Kinds, ", ")}
	}
	if p.Language == "" {
		p.Language = "en"
	}
	if _, known := Languages[p.Language]; !known {
		return p, &given.Error{Field: "language", Value: p.Language, Want: "a code such as en, de, fr, es or el"}
	}
	if p.FromAge < 0 || p.ToAge > MostAge || p.FromAge > p.ToAge {
		return p, &given.Error{Field: "from_age", Value: fmt.Sprintf("%d to %d", p.FromAge, p.ToAge), Want: fmt.Sprintf("an age from 0 to %d, the lower one first", MostAge)}
	}
	if len([]rune(p.Space)) > MostSpace {
		return p, &given.Error{Field: "space", Value: fmt.Sprintf("%d characters long", len([]rune(p.Space))), Want: fmt.Sprintf("at most %d characters", MostSpace)}
	}
	if Active(p.Kind) && p.Space == "" {
		return p, &given.Error{Field: "space", Value: "empty", Want: "how much floor is needed: what is done with the body says so"}
	}
	words, err := cleaned("words", p.Words, MostWords)
	if err != nil {
		return p, err
	}
	var entries []Entry
	seen := map[string]bool{}
	for i, e := range p.Entries {
		e.Text, e.Answer = say.OneLine(e.Text), say.OneLine(e.Answer)
		if n := max(len([]rune(e.Text)), len([]rune(e.Answer))); n > MostText {
			return p, &given.Error{Field: fmt.Sprintf("entries[%d]", i), Value: fmt.Sprintf("%d characters long", n), Want: fmt.Sprintf("at most %d characters", MostText)}
		}
		if key := strings.ToLower(e.Text); e.Text != "" && !seen[key] {
			seen[key] = true
			entries = append(entries, e)
		}
	}
	if len(entries) < leastWords || len(entries) > MostEntries {
		return p, &given.Error{Field: "entries", Value: len(entries), Want: fmt.Sprintf("1 to %d messages", MostEntries)}
	}
	p.Words, p.Entries = words, entries
	return p, nil
}

func cleaned(field string, all []string, most int) ([]string, error) {
	out := []string{}
	for i, w := range all {
		w = say.OneLine(w)
		if n := len([]rune(w)); n > MostText {
			return nil, &given.Error{Field: fmt.Sprintf("%s[%d]", field, i), Value: fmt.Sprintf("%d characters long", n), Want: fmt.Sprintf("at most %d characters", MostText)}
		}
		if w != "" && !slices.Contains(out, w) {
			out = append(out, w)
		}
	}
	if len(out) > most {
		return nil, &given.Error{Field: field, Value: len(out), Want: fmt.Sprintf("at most %d words", most)}
	}
	return out, nil
}

//go:embed shipped/*.json
var shipped embed.FS

var load = sync.OnceValues(func() ([]Pack, error) {
	names, err := fs.Glob(shipped, "shipped/*.json")
	if err != nil {
		return nil, err
	}
	var out []Pack
	for _, n := range names {
		text, err := shipped.ReadFile(n)
		if err != nil {
			return nil, err
		}
		var p Pack
		if err := json.Unmarshal(text, &p); err != nil {
			return nil, fmt.Errorf("%s: %w", n, err)
		}
		if p, err = p.Clean(); err != nil {
			return nil, fmt.Errorf("%s: %w", n, err)
		}
		if !idShape.MatchString(p.ID) {
			return nil, fmt.Errorf("%s: %q is no id", n, p.ID)
		}
		p.Ships, p.Read = true, true
		out = append(out, p)
	}
	sort.Slice(out, func(i, j int) bool {
		a, b := out[i], out[j]
		if a.Language != b.Language {
			return a.Language == "en" || b.Language != "en" && a.Language < b.Language
		}
		if i, j := slices.Index(Kinds, a.Kind), slices.Index(Kinds, b.Kind); i != j {
			return i < j
		}
		return a.FromAge < b.FromAge
	})
	return out, nil
})

// Shipped are the packs that come with the program, English ones first, by kind. The error
// means that a file of it is broken.
func Shipped() ([]Pack, error) {
	all, err := load()
	return slices.Clone(all), err
}
