package bench_test

import (
	"errors"
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"tussock/internal/bench"
	"tussock/internal/motion"
)

func soft(name string) bool { return name != "wing" }

func setup(nose, wing float64) bench.Setup {
	return bench.Setup{Sheet: bench.SheetSpec{WidthMM: 210, HeightMM: 297, GSM: 80, ThicknessMM: 0.1}, Knobs: map[string]float64{"nose": nose, "wing": wing}, Recipes: nil}
}

func TestSettle(t *testing.T) {
	ref := func(s bench.Setup) *bench.Setup { return &s }
	other := setup(0, 90)
	other.Sheet.HeightMM = 300
	colour := setup(0, 90)
	colour.Sheet.Front = "#000000"
	thrown := []bench.Trial{{ID: 1}}
	way := &motion.Way{Words: motion.Words{Tried: "has been whistled at"}}
	child := errors.New("another toy")
	for _, c := range []struct {
		name  string
		build bench.Build
		no    int
		err   error
	}{
		{"first", bench.Build{Draft: ref(setup(5, 90))}, 1, nil},
		{"nothing moved", bench.Build{Tweaks: []bench.Tweak{{No: 1, Setup: setup(0, 90)}}}, 0, bench.ErrNothingChanged},
		{"moved and back", bench.Build{Draft: ref(setup(0, 90)), Tweaks: []bench.Tweak{{No: 1, Setup: setup(0, 90)}}}, 0, bench.ErrNothingChanged},
		{"other colours only", bench.Build{Draft: &colour, Tweaks: []bench.Tweak{{No: 1, Setup: setup(0, 90)}}}, 0, bench.ErrNothingChanged},
		{"bend", bench.Build{Draft: ref(setup(0, 80)), Tweaks: []bench.Tweak{{No: 1, Setup: setup(0, 90), Trials: thrown}}}, 2, nil},
		{"hard fold, not thrown", bench.Build{Draft: ref(setup(5, 90)), Tweaks: []bench.Tweak{{No: 1, Setup: setup(0, 90)}}}, 2, nil},
		{"hard fold, thrown", bench.Build{Draft: ref(setup(5, 90)), Tweaks: []bench.Tweak{{No: 1, Setup: setup(0, 90), Trials: thrown}}}, 0, child},
		{"thrown at an earlier tweak", bench.Build{Draft: ref(setup(5, 80)), Tweaks: []bench.Tweak{{No: 1, Setup: setup(0, 90), Trials: thrown}, {No: 2, Setup: setup(0, 80)}}}, 0, child},
		{"other sheet, thrown", bench.Build{Draft: &other, Tweaks: []bench.Tweak{{No: 1, Setup: setup(0, 90), Trials: thrown}}}, 0, child},
	} {
		no, err := c.build.Settle(soft, way)
		var needs *bench.NeedsChild
		same := errors.Is(err, c.err) || c.err == child && errors.As(err, &needs) && needs.Tried == way.Words.Tried
		if no != c.no || !same {
			t.Errorf("%s: tweak %d, %v; want %d, %v", c.name, no, err, c.no, c.err)
		}
	}
}

func TestCurrentSharesNothing(t *testing.T) {
	b := bench.Build{Tweaks: []bench.Tweak{{No: 1, Setup: setup(0, 90)}}}
	b.Current().Knobs["wing"] = 5
	if b.Tweaks[0].Setup.Knobs["wing"] != 90 {
		t.Error("changing the current set-up changes the tweak")
	}
}

func TestSummarise(t *testing.T) {
	if s := bench.Summarise(nil); s != (bench.Stats{}) {
		t.Errorf("no throws give %+v", s)
	}
	if s := bench.Summarise([]float64{7}); s != (bench.Stats{N: 1, Best: 7, Median: 7, Q1: 7, Q3: 7}) {
		t.Errorf("one throw gives %+v", s)
	}
	// By hand: 1 2 3 4 has median 2.5 and, by linear interpolation, quartiles
	// 1.75 and 3.25.
	if s := bench.Summarise([]float64{4, 1, 3, 2}); s != (bench.Stats{N: 4, Best: 4, Median: 2.5, Q1: 1.75, Q3: 3.25}) {
		t.Errorf("1 to 4 gives %+v", s)
	}
	r := rand.New(rand.NewPCG(1, 1))
	for range 200 {
		v := make([]float64, 1+r.IntN(20))
		for i := range v {
			v[i] = r.Float64() * 10
		}
		order := slices.Clone(v)
		s := bench.Summarise(v)
		if !slices.Equal(order, v) {
			t.Fatal("summing up reorders the throws")
		}
		if !(s.Q1 <= s.Median && s.Median <= s.Q3 && s.Q3 <= s.Best) || s.N != len(v) {
			t.Fatalf("%v gives %+v", v, s)
		}
		for i := range v { // shifting all throws shifts the summary
			v[i] += 3
		}
		if u := bench.Summarise(v); math.Abs(u.Median-s.Median-3) > 1e-9 || math.Abs(u.Q1-s.Q1-3) > 1e-9 {
			t.Fatalf("shifted by 3: %+v after %+v", u, s)
		}
	}
}
