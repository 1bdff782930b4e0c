package bench

import (
	"errors"
	"math"
	"math/rand/v2"
	"slices"
	"testing"
)

func soft(name string) bool { return name != "wing" }

func setup(nose, wing float64) Setup {
	return Setup{SheetSpec{WidthMM: 210, HeightMM: 297, GSM: 80, ThicknessMM: 0.1}, map[string]float64{"nose": nose, "wing": wing}, nil}
}

func TestSettle(t *testing.T) {
	ref := func(s Setup) *Setup { return &s }
	other := setup(0, 90)
	other.Sheet.HeightMM = 300
	colour := setup(0, 90)
	colour.Sheet.Front = "#000000"
	thrown := []Trial{{ID: 1}}
	for _, c := range []struct {
		name  string
		build Build
		no    int
		err   error
	}{
		{"first", Build{Draft: ref(setup(5, 90))}, 1, nil},
		{"nothing moved", Build{Tweaks: []Tweak{{No: 1, Setup: setup(0, 90)}}}, 0, ErrNothingChanged},
		{"moved and back", Build{Draft: ref(setup(0, 90)), Tweaks: []Tweak{{No: 1, Setup: setup(0, 90)}}}, 0, ErrNothingChanged},
		{"other colours only", Build{Draft: &colour, Tweaks: []Tweak{{No: 1, Setup: setup(0, 90)}}}, 0, ErrNothingChanged},
		{"bend", Build{Draft: ref(setup(0, 80)), Tweaks: []Tweak{{No: 1, Setup: setup(0, 90), Trials: thrown}}}, 2, nil},
		{"hard fold, not thrown", Build{Draft: ref(setup(5, 90)), Tweaks: []Tweak{{No: 1, Setup: setup(0, 90)}}}, 2, nil},
		{"hard fold, thrown", Build{Draft: ref(setup(5, 90)), Tweaks: []Tweak{{No: 1, Setup: setup(0, 90), Trials: thrown}}}, 0, ErrNeedsChild},
		{"thrown at an earlier tweak", Build{Draft: ref(setup(5, 80)), Tweaks: []Tweak{{No: 1, Setup: setup(0, 90), Trials: thrown}, {No: 2, Setup: setup(0, 80)}}}, 0, ErrNeedsChild},
		{"other sheet, thrown", Build{Draft: &other, Tweaks: []Tweak{{No: 1, Setup: setup(0, 90), Trials: thrown}}}, 0, ErrNeedsChild},
	} {
		no, err := c.build.Settle(soft)
		if no != c.no || !errors.Is(err, c.err) {
			t.Errorf("%s: tweak %d, %v; want %d, %v", c.name, no, err, c.no, c.err)
		}
	}
}

func TestCurrentSharesNothing(t *testing.T) {
	b := Build{Tweaks: []Tweak{{No: 1, Setup: setup(0, 90)}}}
	b.Current().Knobs["wing"] = 5
	if b.Tweaks[0].Setup.Knobs["wing"] != 90 {
		t.Error("changing the current set-up changes the tweak")
	}
}

func TestSummarise(t *testing.T) {
	if s := Summarise(nil); s != (Stats{}) {
		t.Errorf("no throws give %+v", s)
	}
	if s := Summarise([]float64{7}); s != (Stats{1, 7, 7, 7, 7}) {
		t.Errorf("one throw gives %+v", s)
	}
	// By hand: 1 2 3 4 has median 2.5 and, by linear interpolation, quartiles
	// 1.75 and 3.25.
	if s := Summarise([]float64{4, 1, 3, 2}); s != (Stats{4, 4, 2.5, 1.75, 3.25}) {
		t.Errorf("1 to 4 gives %+v", s)
	}
	r := rand.New(rand.NewPCG(1, 1))
	for range 200 {
		v := make([]float64, 1+r.IntN(20))
		for i := range v {
			v[i] = r.Float64() * 10
		}
		order := slices.Clone(v)
		s := Summarise(v)
		if !slices.Equal(order, v) {
			t.Fatal("summing up reorders the throws")
		}
		if !(s.Q1 <= s.Median && s.Median <= s.Q3 && s.Q3 <= s.Best) || s.N != len(v) {
			t.Fatalf("%v gives %+v", v, s)
		}
		for i := range v { // shifting all throws shifts the summary
			v[i] += 3
		}
		if u := Summarise(v); math.Abs(u.Median-s.Median-3) > 1e-9 || math.Abs(u.Q1-s.Q1-3) > 1e-9 {
			t.Fatalf("shifted by 3: %+v after %+v", u, s)
		}
	}
}
