// Package ways is the list of the ways of moving that there are. Each is written in a
// package of its own under internal/motion and entered here, and nowhere else.
package ways

import (
	"slices"
	"sync"

	"tussock/internal/body"
	"tussock/internal/motion/flap"
	"tussock/internal/motion/glide"
	"tussock/internal/motion/hop"
	"tussock/internal/motion/reveal"
	"tussock/internal/motion/spin"
	"tussock/internal/motion/toys"
	"tussock/internal/sequence"
	"tussock/internal/sequence/lang"
	"tussock/internal/sequence/operations"
)

// Way is a way of moving with all that it brings.
type Way = toys.Way

var (
	mu   sync.RWMutex
	list = complete(slices.Concat([]*Way{glide.Way(), hop.Way()}, flap.Ways(), spin.Ways(), reveal.Ways())...)
)

func complete(all ...*Way) []*Way {
	for _, w := range all {
		w.Complete()
	}
	return all
}

// All are the ways of moving, in the order of the shelf.
func All() []*Way {
	mu.RLock()
	defer mu.RUnlock()
	return slices.Clone(list)
}

// Add enters one more, and gives what takes it out again.
func Add(w *Way) (remove func()) {
	mu.Lock()
	defer mu.Unlock()
	list = append(list, complete(w)...)
	return func() {
		mu.Lock()
		defer mu.Unlock()
		list = slices.DeleteFunc(slices.Clone(list), func(x *Way) bool { return x == w })
	}
}

// Of is the way of moving of a name; the first one for a name that there is not.
func Of(name string) *Way {
	all := All()
	if i := slices.IndexFunc(all, func(w *Way) bool { return w.Name == name }); i >= 0 {
		return all[i]
	}
	return all[0]
}

// For is the way of moving of a pattern: the first whose own it is, of those that it may
// move by.
func For(p *sequence.Pattern) *Way {
	all := All()
	if i := slices.IndexFunc(all, func(w *Way) bool { return w.Moves == p.Moves && (w.Is == nil || w.Is(p)) }); i >= 0 {
		return all[i]
	}
	return all[0]
}

// Language is the pattern language with the words of all ways of moving.
func Language() *lang.Language {
	var words []sequence.Vocabulary
	for _, w := range All() {
		words = append(words, w.Language)
	}
	l := operations.Language(words...)
	l.Stands = body.Balance
	return l
}

// Parse reads a pattern in that language. file is only used in messages. The error is a
// *sequence.ParseError.
func Parse(file, text string) (*sequence.Pattern, error) { return Language().Parse(file, text) }
