package bench

import (
	"errors"
	"fmt"
	"maps"
	"reflect"
	"slices"
	"strings"

	"tussock/internal/given"
	"tussock/internal/motion"
)

// Two hands on one build: a page says what it showed and what it moves, and nothing that
// another has moved meanwhile is lost.

// What is touched beside knobs.
const (
	sheetTouched   = "sheet"
	recipesTouched = "recipes"
)

// Moves are what a page moves of what lies on the table.
type Moves struct {
	Version int                // of the build that the page showed
	Knobs   map[string]float64 // those that were moved
	Sheet   *SheetSpec         // nil: the same as before
	Recipes map[string]int     // nil: the same as before
	Written motion.Written     // places that were written in, an empty mark where nothing stands any more
}

// Cross is something that two hands have moved differently.
type Cross struct {
	What  string // a knob, or "sheet", or "recipes"
	There float64
	Here  float64
}

// Crossed is the error of a move that would undo one which the page has not seen.
type Crossed struct{ Crosses []Cross }

func (e *Crossed) Error() string {
	return "this build has been moved elsewhere meanwhile: look at what it is now, then move it again"
}

// Folds is what a build asks of its pattern.
type Folds interface {
	IsHard(knob string) bool
	FullKnobs(given map[string]float64) map[string]float64
}

// Fill completes all set-ups by knobs that the pattern has got since they were kept.
func (b *Build) Fill(p Folds) {
	if b.Draft != nil {
		b.Draft.Knobs = p.FullKnobs(b.Draft.Knobs)
	}
	for i := range b.Tweaks {
		b.Tweaks[i].Setup.Knobs = p.FullKnobs(b.Tweaks[i].Setup.Knobs)
	}
}

// Put moves what a page moves. A knob that another has moved since is a *Crossed, unless
// both moved it to the same place.
func (b *Build) Put(m Moves, p Folds) error {
	now := b.Current()
	next := now.Clone()
	var crossed []Cross
	for _, k := range slices.Sorted(maps.Keys(m.Knobs)) {
		v := m.Knobs[k]
		if was, had := now.Knobs[k]; had && was == v {
			continue
		}
		if b.Touched[k] > m.Version {
			crossed = append(crossed, Cross{k, now.Knobs[k], v})
		}
		next.Knobs[k] = v
	}
	if m.Sheet != nil && !reflect.DeepEqual(*m.Sheet, now.Sheet) {
		if b.Touched[sheetTouched] > m.Version {
			crossed = append(crossed, Cross{What: sheetTouched})
		}
		next.Sheet = *m.Sheet
	}
	if m.Recipes != nil && !maps.Equal(m.Recipes, now.Recipes) {
		if b.Touched[recipesTouched] > m.Version {
			crossed = append(crossed, Cross{What: recipesTouched})
		}
		next.Recipes = maps.Clone(m.Recipes)
	}
	for _, place := range slices.Sorted(maps.Keys(m.Written)) {
		mark := m.Written[place]
		if now.Written[place] == mark {
			continue
		}
		if b.Touched[WrittenTouched+" "+place] > m.Version {
			crossed = append(crossed, Cross{What: WrittenTouched + " " + place})
		}
		if next.Written == nil {
			next.Written = motion.Written{}
		}
		next.Written[place] = mark
		if mark == (motion.Mark{}) {
			delete(next.Written, place)
		}
	}
	if len(crossed) > 0 {
		return &Crossed{crossed}
	}
	b.lay(b.Drafted(next, p.IsHard))
	return nil
}

// lay puts a tweak and a draft on the table and notes what they touch.
func (b *Build) lay(draft *Setup, at int) {
	before := b.Current()
	b.Draft, b.At = draft, at
	b.touch(before)
}

// touch counts the version up when what lies on the table is not as it was before.
func (b *Build) touch(before Setup) {
	now := b.Current()
	var what []string
	for k, v := range now.Knobs {
		if was, had := before.Knobs[k]; !had || was != v {
			what = append(what, k)
		}
	}
	for k := range before.Knobs {
		if _, has := now.Knobs[k]; !has {
			what = append(what, k)
		}
	}
	if !reflect.DeepEqual(before.Sheet, now.Sheet) {
		what = append(what, sheetTouched)
	}
	if !maps.Equal(before.Recipes, now.Recipes) {
		what = append(what, recipesTouched)
	}
	for place, m := range now.Written {
		if before.Written[place] != m {
			what = append(what, WrittenTouched+" "+place)
		}
	}
	for place := range before.Written {
		if _, still := now.Written[place]; !still {
			what = append(what, WrittenTouched+" "+place)
		}
	}
	if len(what) == 0 {
		return
	}
	b.Version++
	if b.Touched == nil {
		b.Touched = map[string]int{}
	}
	for _, k := range what {
		b.Touched[k] = b.Version
	}
}

// Unseen is a *Crossed when anything has been moved since a version, by names in order.
func (b *Build) Unseen(version int) error {
	var crossed []Cross
	now := b.Current()
	for _, k := range slices.Sorted(maps.Keys(b.Touched)) {
		if b.Touched[k] > version {
			crossed = append(crossed, Cross{k, now.Knobs[k], now.Knobs[k]})
		}
	}
	if len(crossed) == 0 {
		return nil
	}
	return &Crossed{crossed}
}

// Discard puts everything back to the tweak on the table, or to what the pattern itself says
// where there is none yet. A draft that the page has not seen stays, as a *Crossed.
func (b *Build) Discard(version int, plain map[string]float64) error {
	if err := b.Unseen(version); err != nil {
		return err
	}
	b.lay(b.Undrafted(plain), b.At)
	return nil
}

// ErrNoChild is the error of a child build that would be no other toy.
var ErrNoChild = errors.New("a child build is made from a draft that differs from a tweak; move a knob or change the sheet first")

// Child is a build made from the draft that the page has seen, and leaves its parent at
// the tweak on the table.
func (b *Build) Child(version int) (Build, error) {
	now := b.OnTable()
	if b.Draft == nil || now == nil {
		return Build{}, ErrNoChild
	}
	if err := b.Unseen(version); err != nil {
		return Build{}, err
	}
	id, no, draft := b.ID, now.No, b.Draft
	b.lay(nil, b.At)
	return Build{Pattern: b.Pattern, ParentID: &id, ParentTweak: &no, Draft: draft}, nil
}

// SettleAs makes the draft that the page has seen a tweak.
func (b *Build) SettleAs(version int, why string, p Folds, w *motion.Way) error {
	if err := b.Unseen(version); err != nil {
		return err
	}
	no, err := b.Settle(p.IsHard, w)
	if err != nil {
		return err
	}
	b.settle(no, why)
	return nil
}

func (b *Build) settle(no int, why string) {
	b.Tweaks = append(b.Tweaks, Tweak{BuildID: b.ID, No: no, Setup: b.Current(), Why: why})
	b.Draft, b.At = nil, 0
}

// ErrNotWithdrawn is the error of a tweak that cannot be taken back.
var ErrNotWithdrawn = errors.New("only the newest tweak can be taken back, and only while nothing is logged at it")

// Withdraw makes the newest tweak the draft that it was, while nothing is logged at it.
func (b *Build) Withdraw(no int, p Folds) error {
	last := b.Latest()
	if last == nil || last.No != no || last.Count() > 0 {
		return ErrNotWithdrawn
	}
	before, set, drafted, at := b.Current(), last.Setup, b.Draft, b.At
	beneath := at == 0 || at == no
	b.Tweaks = b.Tweaks[:len(b.Tweaks)-1]
	switch {
	case beneath && drafted == nil:
		b.At = 0
		b.Draft, b.At = b.Drafted(set, p.IsHard)
	case beneath:
		b.At = 0
	}
	b.touch(before)
	return nil
}

// Book finds the tweak that a trial belongs to: the one with the set-up that the page
// showed when it was tried, or a new one where that lies on the table only. What another
// has moved since is never booked on: a *Crossed.
func (b *Build) Book(shown Setup, version int, p Folds, w *motion.Way) (*Tweak, error) {
	none := func(string) bool { return false }
	if moved := Changes(b.Current(), shown, none); len(moved) > 0 {
		for i := len(b.Tweaks) - 1; i >= 0; i-- {
			if len(Changes(b.Tweaks[i].Setup, shown, none)) == 0 {
				return &b.Tweaks[i], nil
			}
		}
		// Moved by the page itself, but not kept: the server was away.
		var crossed []Cross
		for _, c := range moved {
			if b.Touched[c.Knob] > version {
				crossed = append(crossed, Cross{c.Knob, c.From, c.To})
			}
		}
		if len(crossed) > 0 {
			return nil, &Crossed{crossed}
		}
		b.lay(b.Drafted(shown, p.IsHard))
	}
	no, err := b.Settle(p.IsHard, w)
	switch {
	case errors.Is(err, ErrNothingChanged):
		return b.OnTable(), nil
	case err != nil:
		return nil, err
	}
	b.settle(no, "")
	return b.Latest(), nil
}

// MaxKey bounds the key by which a trial that is sent twice is known.
const MaxKey = 64

// CheckKey refuses keys that are too long or hold anything but letters, digits and dashes.
func CheckKey(field, key string) error {
	if len(key) > MaxKey || strings.ContainsFunc(key, func(r rune) bool {
		return r != '-' && (r < '0' || r > '9') && (r < 'a' || r > 'z') && (r < 'A' || r > 'Z')
	}) {
		return &given.Error{Field: field, Value: fmt.Sprintf("%d characters long", len(key)), Want: fmt.Sprintf("at most %d letters, digits and dashes", MaxKey)}
	}
	return nil
}
