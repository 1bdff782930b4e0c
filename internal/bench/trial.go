package bench

import (
	"fmt"
	"maps"
	"slices"
	"strings"
	"time"

	"tussock/internal/given"
	"tussock/internal/motion"
	"tussock/internal/order"
	"tussock/internal/say"
)

// Trial is one throw, hop or play of a build at a tweak.
type Trial struct {
	ID        int64
	TweakID   int64
	Kind      string             // of trial, as its way of moving names it; "" for the usual one
	Read      map[string]float64 // readings by id, SI units
	Under     map[string]string  // conditions that its way of moving keeps, as they are called
	Seen      []string
	Thrower   string
	Place     string
	Air       string
	Note      string
	At        time.Time
	DeletedAt *time.Time
	Key       string // given by the page, so that one sent twice is kept once; "" for none
}

// Noted is the trial as findings read it.
func (t Trial) Noted() motion.Noted {
	return motion.Noted{Kind: t.Kind, Chips: t.Seen, Read: t.Read, Under: t.Under}
}

// Noted are trials as findings read them.
func Noted(trials []Trial) []motion.Noted {
	out := make([]motion.Noted, len(trials))
	for i, t := range trials {
		out[i] = t.Noted()
	}
	return out
}

// MaxUnder bounds the conditions kept with a trial.
const MaxUnder = 12

// Check refuses values that no trial of this way of moving has, and trials that say
// nothing.
func (t Trial) Check(w *motion.Way) error {
	if _, ok := w.Kind(t.Kind); !ok {
		return &given.Error{Field: "kind", Value: fmt.Sprintf("%q", t.Kind), Want: "one of " + strings.Join(kindNames(w), ", ")}
	}
	counts := false
	for _, id := range slices.Sorted(maps.Keys(t.Read)) {
		r, ok := w.Record(id)
		if !ok {
			return &given.Error{Field: id, Value: t.Read[id], Want: "left out: that is not measured of this toy"}
		}
		if v := t.Read[id]; !(v >= r.Min && v <= r.Max) {
			return &given.Error{Field: id, Value: v, Want: say.Between(r.Min, r.Max, r.Unit, 2), Said: r.Label + " is " + say.Value(v, r.Unit, 2)}
		}
		counts = counts || !r.Kept
	}
	for _, err := range []error{
		atMost("thrower", t.Thrower, MaxName), atMost("place", t.Place, MaxName),
		atMost("air", t.Air, MaxName), atMost("note", t.Note, MaxNote),
	} {
		if err != nil {
			return err
		}
	}
	if len(t.Under) > MaxUnder {
		return &given.Error{Field: "under", Value: len(t.Under), Want: fmt.Sprintf("at most %d conditions", MaxUnder)}
	}
	for _, k := range slices.Sorted(maps.Keys(t.Under)) {
		if err := atMost("under."+k, k+t.Under[k], MaxName); err != nil {
			return err
		}
	}
	for _, s := range t.Seen {
		if !slices.ContainsFunc(w.Chips, func(c motion.Chip) bool { return c.Name == s }) {
			return &given.Error{Field: "seen", Value: fmt.Sprintf("%q", s), Want: "one of " + strings.Join(chipNames(w), ", ")}
		}
	}
	if !counts && len(t.Seen) == 0 && strings.TrimSpace(t.Note) == "" {
		k, _ := w.Kind(t.Kind)
		if k.Record == "" {
			return &given.Error{Field: "seen", Value: "empty", Want: "given, or else a note"}
		}
		return &given.Error{Field: k.Record, Value: "empty", Want: "given, or else another reading, something seen or a note"}
	}
	return nil
}

// How far a reading lies from all others before it is asked for once more: a slip of the
// point or a key too many is ten times off, a bad throw seldom a quarter.
const (
	oddOver  = 2.5 // times the greatest
	oddUnder = 8.0 // times less than the least
	oddOf    = 3   // others to compare with, at least
	oddLast  = 20  // newest others that count
)

// Odd is the error of a reading that is far off its neighbours, those of the same build:
// a *given.Error that asks whether it is meant. nil where there are too few to tell.
func (b *Build) Odd(t Trial, w *motion.Way) error {
	var others []Trial
	kind, _ := w.Kind(t.Kind)
	for _, tw := range b.Tweaks {
		for _, x := range tw.Trials {
			if k, _ := w.Kind(x.Kind); k.Name == kind.Name {
				others = append(others, x)
			}
		}
	}
	slices.SortStableFunc(others, func(x, y Trial) int { return y.At.Compare(x.At) })
	others = others[:min(len(others), oddLast)]
	for _, r := range w.Records {
		v, read := t.Read[r.ID]
		near := Readings(others, r.ID)
		if !read || len(r.Sides) > 0 || len(near) < oddOf {
			continue
		}
		lo, hi := slices.Min(near), slices.Max(near)
		if v > oddOver*hi && hi > 0 || v < lo/oddUnder {
			return &Odd{Field: r.ID, Words: fmt.Sprintf("%s? The others are %s. Log it once more and it is kept as it is", say.Value(v, r.Unit, 2), say.Between(lo, hi, r.Unit, 2))}
		}
	}
	return nil
}

// Odd asks whether a reading is meant.
type Odd struct{ Field, Words string }

func (e *Odd) Error() string { return say.Plain(e.Words) }

func kindNames(w *motion.Way) []string {
	var out []string
	for _, k := range w.Kinds {
		out = append(out, k.Name)
	}
	return out
}

func chipNames(w *motion.Way) []string {
	var out []string
	for _, c := range w.Chips {
		out = append(out, c.Name)
	}
	return out
}

// Stats sums up one reading over the trials of a tweak.
type Stats struct {
	N      int     `json:"n"`
	Best   float64 `json:"best"`
	Median float64 `json:"median"`
	// Q1 and Q3 are the quartiles: the middle half of the readings lies between.
	Q1 float64 `json:"q1"`
	Q3 float64 `json:"q3"`
}

// Summarise gives n, best, median and the middle half (quartiles by linear
// interpolation between order statistics). All zero for no readings.
func Summarise(values []float64) Stats {
	if len(values) == 0 {
		return Stats{}
	}
	v := slices.Sorted(slices.Values(values))
	return Stats{N: len(v), Best: v[len(v)-1], Median: order.Quantile(v, 0.5), Q1: order.Quantile(v, 0.25), Q3: order.Quantile(v, 0.75)}
}

// Readings are the values of one reading, of the trials that have it.
func Readings(trials []Trial, id string) []float64 { return motion.Values(Noted(trials), id) }

// Summaries are the statistics of all readings that occur. Where less is better the best
// is the least.
func Summaries(trials []Trial, w *motion.Way) map[string]Stats {
	out := map[string]Stats{}
	for _, r := range w.Records {
		v := Readings(trials, r.ID)
		if len(v) == 0 {
			continue
		}
		s := Summarise(v)
		if r.Less {
			s.Best = slices.Min(v)
		}
		out[r.ID] = s
	}
	return out
}
