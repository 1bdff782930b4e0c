package spread_test

import (
	"math"
	"strings"
	"testing"

	"tussock/internal/sequence"
	"tussock/internal/sequence/spread"
	"tussock/internal/sheet"
	"tussock/internal/shelf"
	"tussock/internal/ways"
)

var leaflet = sheet.Sheet{WidthMM: 210, HeightMM: 297, GSM: 80, ThicknessMM: 0.1}

// A slip against the same fold made with a gap: what the first-order answer says and
// what folding it anew gives agree, past the target and short of it.
func TestSlipAgainstFoldingAnew(t *testing.T) {
	const text = `pattern "T"
moves fly
sheet rect 210 297
crease bring left to right as keel
  say "a"
valley bring TL to keel through T near C as c1
  say "b"
valley bring left to keel GAP as w
  say "c"
`
	parse := func(gap string) *sequence.Pattern {
		p, err := ways.Parse("t", strings.Replace(text, "left to keel GAP", "[L BL] to keel "+gap, 1))
		if err != nil {
			t.Fatal(err)
		}
		return p
	}
	exact := parse("").Run(leaflet, nil)
	if exact.Err != nil {
		t.Fatal(exact.Err)
	}
	for _, past := range []float64{-2, -0.5, 0.5, 1, 2} {
		s, ok, err := spread.SlipAt(exact, 3, past)
		if err != nil || !ok {
			t.Fatal(err)
		}
		anew := parse("gap "+sheet.Number(-past)).Run(leaflet, nil)
		if anew.Err != nil {
			t.Fatal(anew.Err)
		}
		worst := 0.0
		for i := range anew.Final().F {
			f := anew.Final().F[i]
			c := f.Poly.Centroid()
			if at := exact.Final().FacetsAtSheet(c); len(at) == 1 {
				worst = math.Max(worst, s.State.F[at[0]].Iso.Apply(c).Dist(f.Iso.Apply(c)))
			}
		}
		if worst > 0.02 {
			t.Errorf("%v mm past: pieces lie %v mm apart", past, worst)
		}
		if len(s.Moved) == 0 || math.Abs(s.Moved[0].MM-math.Abs(past)) > 0.05 {
			t.Errorf("%v mm past moves %+v", past, s.Moved)
		}
	}
}

// Twice the slip does twice as much; a remedy leaves less than there was, and carried
// out with the slip it does what it says.
func TestRemediesMakeItBetter(t *testing.T) {
	p, _ := shelf.Find("curlew")
	r := p.Run(leaflet, nil)
	one, ok, err := spread.SlipAt(r, 2, 1)
	if err != nil || !ok {
		t.Fatal(err)
	}
	two, _, _ := spread.SlipAt(r, 2, 2)
	if math.Abs(two.RMSMM-2*one.RMSMM) > 1e-6 || two.CoMMM.Sub(one.CoMMM.Scale(2)).Len() > 1e-6 {
		t.Errorf("%v and %v", one.RMSMM, two.RMSMM)
	}
	for i, q := range one.Remedies {
		if q.Step <= 2 || q.LeftMM >= 0.75*one.RMSMM || q.PastMM == 0 {
			t.Errorf("%+v of %v", q, one.RMSMM)
		}
		if i > 0 && q.LeftMM < one.Remedies[i-1].LeftMM {
			t.Error("the best does not come first")
		}
	}
	for _, d := range r.Steps {
		if _, ok, _ := spread.SlipAt(r, d.No, 1); ok == (d.Op == sequence.OpTurn || d.Op == "wing") {
			t.Errorf("%s can slip: %v", d.Op, ok)
		}
	}
	if tiny, _, _ := spread.SlipAt(r, 2, 0.2); tiny.Advice() != spread.Accept {
		t.Errorf("0.2 mm: %s", tiny.Advice())
	}
	big, _, _ := spread.SlipAt(r, 2, 8)
	if makesUp := len(big.Remedies) > 0 && big.Remedies[0].LeftMM < big.RMSMM/2; (big.Advice() == spread.Compensate) != makesUp || !makesUp && big.Advice() != spread.Redo {
		t.Errorf("8 mm: %s with %+v", big.Advice(), big.Remedies)
	}
	if zero, _, _ := spread.SlipAt(r, 2, 0); zero.RMSMM != 0 || len(zero.Remedies) != 0 {
		t.Errorf("no slip: %+v", zero)
	}
}
