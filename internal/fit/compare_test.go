package fit

import (
	"math"
	"math/rand/v2"
	"testing"
)

func throws(r *rand.Rand, n int, mean, sd float64) []float64 {
	out := make([]float64, n)
	for i := range out {
		out[i] = mean + sd*r.NormFloat64()
	}
	return out
}

// Two throws prove nothing; a clear gain is found, a clear loss too, both with their
// size inside the band.
func TestClearChanges(t *testing.T) {
	if c := Compare([]float64{5, 6, 7}, []float64{9, 9}); c.Verdict != TooFew || c.More != 1 {
		t.Errorf("%+v", c)
	}
	r := rand.New(rand.NewPCG(1, 2))
	up := Compare(throws(r, 8, 6, 0.5), throws(r, 8, 8, 0.5))
	if up.Verdict != Better || up.Lo > 2 || up.Hi < 2 || up.Chance > 0.01 {
		t.Errorf("%+v", up)
	}
	if down := Compare(throws(r, 8, 8, 0.5), throws(r, 8, 6, 0.5)); down.Verdict != Worse {
		t.Errorf("%+v", down)
	}
}

// Without a change a difference is claimed no more often than the level says.
func TestNoChangeIsRarelyClaimed(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 6))
	claimed := 0
	const rounds = 200
	for range rounds {
		c := Compare(throws(r, 6, 7, 1), throws(r, 6, 7, 1))
		if c.Verdict != Level {
			claimed++
		}
		if c.Verdict == Level && c.More == 0 {
			t.Error("six throws that show nothing ask for no more")
		}
	}
	if claimed > rounds*18/100 {
		t.Errorf("claimed in %d of %d", claimed, rounds)
	}
}

// The rank test is exact where it can be counted: three before all below three after
// happen in 2 of 20 orders.
func TestRankTestCounted(t *testing.T) {
	if c := Compare([]float64{1, 2, 3}, []float64{4, 5, 6}); math.Abs(c.Chance-0.1) > 0.02 {
		t.Errorf("the chance is %v", c.Chance)
	}
	if c := Compare([]float64{4, 4, 4}, []float64{4, 4, 4}); c.Verdict != Level || c.Shift != 0 {
		t.Errorf("%+v", c)
	}
}

// Fisher's tea tasting: 3 of 4 against 1 of 4 has .4857 to both sides.
func TestShares(t *testing.T) {
	if p := Share(3, 4, 1, 4); math.Abs(p-0.4857) > 1e-3 {
		t.Errorf("%v", p)
	}
	if p := Share(5, 5, 0, 5); p > 0.01 {
		t.Errorf("%v", p)
	}
	if p := Share(0, 0, 2, 4); p != 1 {
		t.Errorf("%v", p)
	}
}

// A change is kept when it is better, or when the fault is gone; it is taken back when it
// is worse or when enough trials show nothing; less can be better.
func TestKeepOrRevert(t *testing.T) {
	noted := func(bad, good int) [][]string {
		var out [][]string
		for range bad {
			out = append(out, []string{"dived"})
		}
		for range good {
			out = append(out, []string{"glided"})
		}
		return append(out, nil)
	}
	gone := MostFaults(noted(6, 0), noted(0, 6), []string{"dived", "stalled"})
	if !gone.Cured() || gone.Name != "dived" || gone.BeforeN != 6 || gone.After != 0 {
		t.Errorf("%+v", gone)
	}
	if f := MostFaults(noted(1, 5), noted(0, 6), []string{"dived"}); f != nil {
		t.Error("one dive is no fault")
	}
	if MostFaults(noted(3, 3), noted(3, 3), []string{"dived"}).Cured() {
		t.Error("as often as before is no cure")
	}
	for name, q := range map[string]struct {
		c    Comparison
		f    *Faults
		less bool
		want Advice
		more int
	}{
		"better":          {Comparison{Verdict: Better}, nil, false, Keep, 0},
		"worse":           {Comparison{Verdict: Worse}, gone, false, Revert, 0},
		"less is better":  {Comparison{Verdict: Worse}, nil, true, Keep, 0},
		"more is worse":   {Comparison{Verdict: Better}, nil, true, Revert, 0},
		"cured":           {Comparison{Verdict: Level, More: 3}, gone, false, Keep, 0},
		"nothing seen":    {Comparison{Verdict: Level}, nil, false, Revert, 0},
		"not enough yet":  {Comparison{Verdict: Level, More: 3}, nil, false, TryMore, 3},
		"hardly any shot": {Comparison{Verdict: TooFew, More: 2}, nil, false, TryMore, 2},
	} {
		if got, more := q.c.Judge(q.f, q.less); got != q.want || more != q.more {
			t.Errorf("%s: %s, %d more", name, got, more)
		}
	}
}

// More scatter or a smaller difference needs more trials; with as many as are asked for,
// a difference of that size is mostly found.
func TestNeeded(t *testing.T) {
	if a, b := Needed(20, 10, 0.3), Needed(13, 10, 0.3); a >= b || a < 3 {
		t.Errorf("%d for twice as far, %d for a third more", a, b)
	}
	if Needed(10, 10, 0.3) != 30 || Needed(0, 5, 0.3) != 30 {
		t.Error("no difference needs as many as are ever asked for")
	}
	r := rand.New(rand.NewPCG(3, 4))
	n := Needed(13, 10, 0.25)
	found := 0
	for range 100 {
		if Compare(throws(r, n, 10, 2.5), throws(r, n, 13, 3.25)).Verdict == Better {
			found++
		}
	}
	if found < 65 {
		t.Errorf("with %d trials each it is found in %d of 100", n, found)
	}
	if s := Scatter(throws(r, 400, 10, 2)); math.Abs(s-0.2) > 0.04 {
		t.Errorf("scatter %v", s)
	}
}

// Small groups are told apart exactly: three throws against three that all lie further
// come about by chance in 2 of 20 ways, which is not sure; four against four in 2 of 70.
func TestSmallGroupsAreCountedOut(t *testing.T) {
	for _, c := range []struct {
		before, after []float64
		chance        float64
		verdict       Verdict
	}{
		{[]float64{1, 2, 3}, []float64{4, 5, 6}, 0.1, Level},
		{[]float64{1, 2, 3, 4}, []float64{5, 6, 7, 8}, 2.0 / 70, Better},
		{[]float64{5, 6, 7, 8}, []float64{1, 2, 3, 4}, 2.0 / 70, Worse},
		{[]float64{2, 2, 2}, []float64{2, 2, 2}, 1, Level},
	} {
		if got := Compare(c.before, c.after); math.Abs(got.Chance-c.chance) > 1e-12 || got.Verdict != c.verdict {
			t.Errorf("%v, %v: %v %s, want %v %s", c.before, c.after, got.Chance, got.Verdict, c.chance, c.verdict)
		}
	}
}
