package bench

import (
	"errors"
	"fmt"
	"maps"
	"slices"

	"tussock/internal/motion"
)

// What a draft cannot do.
var ErrNothingChanged = errors.New("nothing has changed since the tweak on the table")

// NeedsChild is the error of a draft that would be another toy; it knows in what words
// people speak of toys that have trials.
type NeedsChild struct{ Tried string }

func (e *NeedsChild) Error() string {
	return fmt.Sprintf("this toy %s, and the draft moves a hard fold or takes another sheet: that is another toy. Make it a child build, or put those knobs back", e.Tried)
}

// Settle decides what becomes of the draft: the number of the tweak it makes, or
// an error. A build without tweaks settles its first.
func (b *Build) Settle(isHard func(string) bool, w *motion.Way) (no int, err error) {
	now := b.OnTable()
	if now == nil {
		return 1, nil
	}
	if b.Draft == nil {
		return 0, ErrNothingChanged
	}
	changes := Changes(now.Setup, *b.Draft, isHard)
	if len(changes) == 0 {
		return 0, ErrNothingChanged
	}
	if b.Trials() > 0 && slices.ContainsFunc(changes, func(c Change) bool { return c.Hard }) {
		return 0, &NeedsChild{w.Words.Tried}
	}
	return b.Latest().No + 1, nil
}

// Drafted is what a set-up on the table is kept as: a draft, or nil when everything was
// moved to where a tweak has it, with the number of that: its trials count on. A tweak of
// another toy, tried since, is not gone back to.
func (b *Build) Drafted(s Setup, isHard func(string) bool) (draft *Setup, at int) {
	now := b.OnTable()
	if now == nil {
		return &s, 0
	}
	is := func(t *Tweak) bool {
		return len(Changes(t.Setup, s, isHard)) == 0 && maps.Equal(t.Setup.Recipes, s.Recipes)
	}
	if is(now) {
		return nil, b.At
	}
	sameToy := !slices.ContainsFunc(Changes(now.Setup, s, isHard), func(c Change) bool { return c.Hard })
	for i := len(b.Tweaks) - 1; i >= 0; i-- {
		if t := &b.Tweaks[i]; (sameToy || b.Trials() == 0) && is(t) {
			return nil, t.No
		}
	}
	return &s, b.At
}

// Undrafted is what is on the table once the draft is thrown away: nothing but the tweak,
// or what the pattern itself says where there is none yet.
func (b *Build) Undrafted(plain map[string]float64) *Setup {
	if b.OnTable() != nil {
		return nil
	}
	return &Setup{Sheet: b.Current().Sheet, Knobs: plain, Written: b.Current().Written}
}

// FreshName is a title with the first number that no build has.
func FreshName(title string, all []*Build) string {
	taken := map[string]bool{}
	for _, b := range all {
		taken[b.Name] = true
	}
	for n := 1; ; n++ {
		if name := fmt.Sprintf("%s %d", title, n); !taken[name] {
			return name
		}
	}
}

// CopyName is the name of a copy, cut where it would be too long.
func CopyName(name string) string {
	r := []rune("Copy of " + name)
	return string(r[:min(len(r), MaxName)])
}

// Newest is the trial logged last, by the clock; false when there is none.
func (b *Build) Newest() (last Trial, found bool) {
	for _, t := range b.Tweaks {
		for _, x := range t.Trials {
			if !x.At.Before(last.At) {
				last, found = x, true
			}
		}
	}
	return last, found
}

// Again is a trial to begin with: conditions and kept readings as they were the last time
// with this build, else elsewhere. The kind is that of this build's last.
func Again(b *Build, elsewhere Trial, w *motion.Way) Trial {
	last, here := b.Newest()
	if !here {
		last = elsewhere
	}
	out := Trial{Thrower: last.Thrower, Place: last.Place, Air: last.Air, Read: map[string]float64{}}
	if here {
		out.Kind = last.Kind
	}
	for _, r := range w.Records {
		if v, ok := last.Read[r.ID]; ok && r.Kept {
			out.Read[r.ID] = v
		}
	}
	return out
}

// Tried is the set-up that was tried last, with its trials; the one on the table where
// that was tried, or none was.
func (b *Build) Tried() (Setup, []Trial) {
	if t := b.OnTable(); t != nil && len(t.Trials) > 0 {
		return t.Setup, t.Trials
	}
	for i := len(b.Tweaks) - 1; i >= 0; i-- {
		if t := b.Tweaks[i]; len(t.Trials) > 0 {
			return t.Setup, t.Trials
		}
	}
	return b.Current(), nil
}

// Result is the reading that counts for a way of moving, and what it came to at the tweak
// on the table, else at the newest that has one.
func (b *Build) Result(w *motion.Way) (record string, s Stats) {
	k, _ := w.Kind("")
	for _, t := range b.Tweaks {
		if q, ok := Summaries(t.Trials, w)[k.Record]; ok {
			s = q
			if now := b.OnTable(); now.No == t.No {
				break
			}
		}
	}
	return k.Record, s
}

// Seen is what was noted of each trial.
func Seen(trials []Trial) [][]string {
	out := make([][]string, len(trials))
	for i, t := range trials {
		out[i] = t.Seen
	}
	return out
}
