// Package shelf holds the patterns that ship with Tussock, one text file each.
package shelf

import (
	"embed"
	"io/fs"
	"path"
	"slices"
	"sort"
	"strings"
	"sync"

	"tussock/internal/sequence"
	"tussock/internal/ways"
)

//go:embed *.pattern studies/*.pattern addons/*.pattern
var files embed.FS

var (
	load    = sync.OnceValues(func() ([]*sequence.Pattern, error) { return read("*.pattern") })
	addOns  = sync.OnceValues(func() ([]*sequence.Pattern, error) { return read("addons/*.pattern") })
	studies = sync.OnceValues(func() ([]*sequence.Pattern, error) { return read("studies/*.pattern") })
)

func read(glob string) ([]*sequence.Pattern, error) {
	names, err := fs.Glob(files, glob)
	if err != nil {
		return nil, err
	}
	sort.Strings(names)
	var out []*sequence.Pattern
	for _, n := range names {
		text, err := files.ReadFile(n)
		if err != nil {
			return nil, err
		}
		p, err := ways.Parse(path.Base(n), string(text))
		if err != nil {
			return nil, err
		}
		out = append(out, p)
	}
	return out, nil
}

// beside are patterns entered beside those that ship.
var (
	mu     sync.RWMutex
	beside []*sequence.Pattern
)

// Add enters one more pattern, and gives what takes it out again. The error is a
// *sequence.ParseError.
func Add(file, text string) (remove func(), err error) {
	p, err := ways.Parse(file, text)
	if err != nil {
		return nil, err
	}
	mu.Lock()
	defer mu.Unlock()
	beside = append(slices.Clone(beside), p)
	return func() {
		mu.Lock()
		defer mu.Unlock()
		beside = slices.DeleteFunc(slices.Clone(beside), func(q *sequence.Pattern) bool { return q == p })
	}, nil
}

// All are the patterns in order of id, and after them those that were added. The error is
// a *sequence.ParseError and means that a shipped file is broken.
func All() ([]*sequence.Pattern, error) {
	all, err := load()
	mu.RLock()
	defer mu.RUnlock()
	return append(slices.Clip(all), beside...), err
}

// Studies are the bases and single operations that show the engine at work; they
// are no toys to build.
func Studies() ([]*sequence.Pattern, error) { return studies() }

// AddOns are what is folded to go with a toy of the shelf: a stand, something to hop over.
func AddOns() ([]*sequence.Pattern, error) { return addOns() }

// AddOnsOf are those that go with a pattern.
func AddOnsOf(id string) []*sequence.Pattern {
	all, err := addOns()
	if err != nil {
		return nil
	}
	return slices.DeleteFunc(slices.Clone(all), func(p *sequence.Pattern) bool { return !slices.Contains(p.AddsTo, id) })
}

// Find looks a pattern up by id or title, upper and lower case alike.
func Find(name string) (*sequence.Pattern, bool) { return find(All, name) }

// FindStudy looks a study or an add-on up in the same way.
func FindStudy(name string) (*sequence.Pattern, bool) {
	if p, found := find(studies, name); found {
		return p, true
	}
	return find(addOns, name)
}

func find(load func() ([]*sequence.Pattern, error), name string) (*sequence.Pattern, bool) {
	all, err := load()
	if err != nil {
		return nil, false
	}
	for _, p := range all {
		if strings.EqualFold(p.ID, name) || strings.EqualFold(p.Title, name) {
			return p, true
		}
	}
	return nil, false
}

// Lineage is whose work a pattern is and what it was made from, in words; "" where nobody
// said.
func Lineage(p *sequence.Pattern) string {
	var parts []string
	if p.Credit != "" {
		parts = append(parts, "By "+p.Credit)
	}
	if of, found := Find(p.Adapts); found {
		parts = append(parts, "after "+of.Title)
	}
	return strings.Join(parts, ", ")
}

// Names are the ids of all patterns.
func Names() []string { return ids(All) }

// StudyNames are the ids of all studies.
func StudyNames() []string { return ids(studies) }

func ids(load func() ([]*sequence.Pattern, error)) []string {
	all, err := load()
	if err != nil {
		return nil
	}
	var out []string
	for _, p := range all {
		out = append(out, p.ID)
	}
	return out
}
