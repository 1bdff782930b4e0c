package toys_test

import (
	"errors"
	"strings"
	"sync"
	"sync/atomic"
	"testing"

	"tussock/internal/motion"
	"tussock/internal/motion/toys"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
	"tussock/internal/ways"
)

const leaf = `pattern "Leaf"
moves reveal
sheet square 100
knob at "Place" = 40 mm from 10 to 90 set changes "Where it is folded."
knob dye "Dye" = 1 from 0 to 5 set changes "Colour."
knob share "Part" = 0.5 from 0.25 to 0.75 fold changes "Second fold."
valley along par(left,at,C) moving L as f
crease through part(BL,TL,share) square left as g
`

func leaves(t *testing.T, counted *atomic.Int64) *toys.Toys[float64] {
	t.Helper()
	p, err := ways.Parse("leaf", leaf)
	if err != nil {
		t.Fatal(err)
	}
	return &toys.Toys[float64]{Pattern: p, Sheet: sheet.Sheet{WidthMM: 100, HeightMM: 100, GSM: 80, ThicknessMM: 0.1}, Bent: map[string]bool{"dye": true},
		Of: func(r *sequence.Replay) (float64, error) {
			counted.Add(1)
			if w := r.Final().Box().Width(); w > 30 {
				return w, nil
			}
			return 0, errors.New("too narrow")
		}}
}

// A toy is folded once for every shape, and knobs that bend it only do not fold it again;
// what cannot be is told each time.
func TestToysAreKept(t *testing.T) {
	var n atomic.Int64
	w := leaves(t, &n)
	at := func(k map[string]float64) float64 {
		v, err := w.Toy(k)
		if err != nil {
			t.Fatal(err)
		}
		return v
	}
	if v := at(nil); v != 60 {
		t.Errorf("width %v", v)
	}
	if v := at(map[string]float64{"at": 20}); v != 80 {
		t.Errorf("width %v", v)
	}
	for _, dye := range []float64{0, 1, 2} {
		at(map[string]float64{"at": 20, "dye": dye})
	}
	if n.Load() != 2 {
		t.Errorf("folded %d times for two shapes", n.Load())
	}
	w.Of = func(*sequence.Replay) (float64, error) { return 0, errors.New("no use") }
	if _, err := w.Toy(map[string]float64{"at": 30}); err == nil {
		t.Error("what it is no use for is not told")
	}
}

// Many at once get the same answers as one alone.
func TestToysSideBySide(t *testing.T) {
	var n atomic.Int64
	w := leaves(t, &n)
	var all sync.WaitGroup
	for k := range 40 {
		all.Go(func() {
			at := 12 + float64(k%20)
			if v, err := w.Toy(map[string]float64{"at": at}); err != nil || v != 100-at {
				t.Errorf("at %v: %v, %v", at, v, err)
			}
		})
	}
	all.Wait()
}

// Values, changes and levers keep to the pattern's ranges, defaults and kinds.
func TestKnobs(t *testing.T) {
	var n atomic.Int64
	w := leaves(t, &n)
	k := map[string]float64{"at": 70}
	if v := w.Values(k); v["at"] != 70 || v["share"] != 0.5 {
		t.Errorf("%v", v)
	}
	if c := w.Change(k, "at", 50); c.From != 70 || c.To != 90 || c.Unit != "mm" {
		t.Errorf("%+v", c)
	}
	if c := w.Change(k, "tail", 1); c.Knob != "tail" || c.To != 0 {
		t.Errorf("%+v", c)
	}
	if m := toys.With(k, motion.Change{Knob: "share", To: 0.3}); m["share"] != 0.3 || m["at"] != 70 || len(k) != 1 {
		t.Errorf("%v, %v", m, k)
	}
	l := w.Levers(k, map[string]bool{"dye": true})
	if len(l) != 3 || l[0].Value != 70 || l[0].Step != 1 || !l[1].Even || !l[2].Hard || l[2].Step != 0.01 {
		t.Errorf("%+v", l)
	}
}

// Lengths of folds go along with the sheet as far as they may; parts and what is bent
// stay, and the knobs given are left alone.
func TestScaled(t *testing.T) {
	p, err := ways.Parse("leaf", strings.Replace(leaf, "to 90 set", "to 90 fold", 1))
	if err != nil {
		t.Fatal(err)
	}
	given := map[string]float64{"at": 40, "dye": 1, "share": 0.4}
	for k, want := range map[float64]float64{0.5: 20, 1: 40, 2: 80, 4: 90, 0.1: 10} {
		if v := toys.Scaled(p, given, k); v["at"] != want || v["dye"] != 1 || v["share"] != 0.4 {
			t.Errorf("%v times: %v", k, v)
		}
	}
	if given["at"] != 40 {
		t.Error("what was given is changed")
	}
}
