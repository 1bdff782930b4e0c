package bench

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"time"
)

// Trial is one throw of a build at a tweak.
type Trial struct {
	ID           int64
	TweakID      int64
	DistanceM    *float64 // from the thrower's toes to where the toy lies
	TimeS        *float64 // in the air
	Seen         []string
	Thrower      string
	Place        string
	Air          string
	ThrowHeightM *float64
	OffsetM      *float64 // how far to the right of the line aimed along it came down, left negative
	Note         string
	At           time.Time
	DeletedAt    *time.Time
}

// SeenOf is what can be noted of a toy, by how it moves. A way of moving without an
// entry is noted in words alone.
var SeenOf = map[string][]string{
	"fly":    {"glided", "dived", "stalled", "turned left", "turned right", "rolled", "looped", "hit something"},
	"reveal": {"opened both ways", "opened one way", "bound", "gaped in the middle", "tore"},
}

// Seen is all that can be noted of any toy.
var Seen = slices.Concat(SeenOf["fly"], SeenOf["reveal"])

// Check refuses values that no throw has, and trials that say nothing.
func (t Trial) Check() error {
	for _, err := range []error{
		inRange("distance_m", t.DistanceM, 0, 200, "m"),
		inRange("time_s", t.TimeS, 0, 120, "s"),
		inRange("throw_height_m", t.ThrowHeightM, 0, 20, "m"), inRange("offset_m", t.OffsetM, -100, 100, "m"),
		atMost("thrower", t.Thrower, MaxName), atMost("place", t.Place, MaxName),
		atMost("air", t.Air, MaxName), atMost("note", t.Note, MaxNote),
	} {
		if err != nil {
			return err
		}
	}
	for _, s := range t.Seen {
		if !slices.Contains(Seen, s) {
			return &Problem{"seen", fmt.Sprintf("%q", s), "one of " + strings.Join(Seen, ", ")}
		}
	}
	if t.DistanceM == nil && t.TimeS == nil && len(t.Seen) == 0 && strings.TrimSpace(t.Note) == "" {
		return &Problem{"distance_m", "empty", "given, or else a time, something seen or a note"}
	}
	return nil
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
	return Stats{N: len(v), Best: v[len(v)-1], Median: quantile(v, 0.5), Q1: quantile(v, 0.25), Q3: quantile(v, 0.75)}
}

func quantile(sorted []float64, q float64) float64 {
	at := q * float64(len(sorted)-1)
	i := int(math.Floor(at))
	if i+1 >= len(sorted) {
		return sorted[len(sorted)-1]
	}
	return sorted[i] + (at-float64(i))*(sorted[i+1]-sorted[i])
}

// Distances are the readings of the trials that have one.
func Distances(trials []Trial) []float64 {
	return readings(trials, func(t Trial) *float64 { return t.DistanceM })
}

// Times likewise.
func Times(trials []Trial) []float64 {
	return readings(trials, func(t Trial) *float64 { return t.TimeS })
}

func readings(trials []Trial, of func(Trial) *float64) []float64 {
	var out []float64
	for _, t := range trials {
		if v := of(t); v != nil {
			out = append(out, *v)
		}
	}
	return out
}
