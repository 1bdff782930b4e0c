package spread_test

import (
	"fmt"
	"math"
	"strings"
	"testing"

	"tussock/internal/foldtest"
	"tussock/internal/geom"
	"tussock/internal/sequence"
	"tussock/internal/sequence/spread"
)

func steps(t testing.TB, text string) (*sequence.Replay, []spread.Step) {
	t.Helper()
	r := foldtest.Fold(t, text)
	s, err := spread.Of(r, 0.3, 10, 1)
	if err != nil {
		t.Fatal(err)
	}
	return r, s.Steps
}

// A cut that is a millimetre off leaves an edge that is a millimetre off: by hand, and
// through four layers on four sides, also after all is opened again.
func TestErrorsReachCutEdges(t *testing.T) {
	_, s := steps(t, "sheet square 100\nmoves reveal\ncut along par(bottom,20,T) removing B\n")
	if q := s[0]; math.Abs(q.PerMM-1) > 1e-6 || q.Class == spread.Free && q.PerMM > spread.FreeMM || !strings.HasPrefix(q.Worst, sequence.CutEdge) {
		t.Errorf("a cut: %+v", q)
	}
	_, s = steps(t, "sheet square 100\nmoves reveal\nvalley bring left to right as a\nvalley bring bottom to top layers all as b\ncut along par([C R],30,TR) removing TR\nunfold all\n")
	for i, least := range []float64{0, 0.9, 0.9} { // the first fold's error runs along the cut
		if s[i].PerMM < least || s[i].PerMM > 6 {
			t.Errorf("step %d of a cut through four layers: %+v", i+1, s[i])
		}
	}
	r, s := steps(t, "sheet square 150\nmoves reveal\nuse pentagon\n")
	for _, i := range []int{0, 2, 3, 5} { // the mark itself is not folded; the last fold lies square to the cut
		if s[i].PerMM < 0.5 || s[i].PerMM > 20 {
			t.Errorf("pentagon, step %d: %v mm a mm", i+1, s[i].PerMM)
		}
	}
	if n := len(r.Final().F); n < 10 {
		t.Error(n)
	}
}

// A mark that is carried over is set by hand.
func TestErrorsReachMarksCarriedOver(t *testing.T) {
	r, s := steps(t, "sheet square 100\nmoves reveal\ncrease bring left to right as k\npoint P = sheet(20,30)\ntransfer P across k as Q\nvalley bring TR to Q as f\n")
	mark := s[1]
	if mark.PerMM < 0.5 || mark.PerMM > 5 || mark.Lines != 1 {
		t.Errorf("a mark a millimetre off: %+v", mark)
	}
	if lines := r.CreaseLines(); len(lines) != 3 || lines[1] != 2 {
		t.Errorf("lines made by hand: %v", lines)
	}
}

// The middle is where the creases cross that were made to find it: a diagonal that is a
// millimetre off takes what is brought to the middle along.
func TestErrorsReachTheMiddle(t *testing.T) {
	for _, marks := range []string{"crease through BL TR\ncrease through BR TL\n", "crease bring left to right\ncrease bring bottom to top\n"} {
		_, s := steps(t, "sheet square 100\nmoves reveal\n"+marks+"valley bring TL to C as a\nvalley bring TR to C as b\n")
		for i := range 2 {
			if s[i].PerMM < 0.5 || s[i].PerMM > 3 {
				t.Errorf("%q, step %d: %v mm a mm", marks, i+1, s[i].PerMM)
			}
			if s[i].Class == spread.Free && s[i].PerMM > spread.FreeMM {
				t.Errorf("%q, step %d reads free", marks, i+1)
			}
		}
	}
	// An author's own middle is exact: no crease finds it.
	_, s := steps(t, "sheet square 100\nmoves reveal\ncrease through BL TR\ncrease through BR TL\npoint M = sheet(50,50)\nvalley bring TL to M as a\n")
	if s[0].PerMM > 1e-6 {
		t.Errorf("a diagonal that nothing is brought to moves %v mm", s[0].PerMM)
	}
}

// Soft folds act on how the toy moves, not on where it lies: they are never free.
func TestSoftFoldsAreNotFree(t *testing.T) {
	_, s := steps(t, "sheet rect 60 200\nmoves hop\nnose T\nvalley along par(bottom,60,T) moving B soft as hip\nvalley bring B to sheet(30,60) soft as catch\nspring hip catch\n")
	for _, q := range s {
		if q.Class == spread.Free {
			t.Errorf("step %d is free", q.No)
		}
	}
}

// Left and right are folded alike, so a millimetre does as much on one side as on the other.
func TestMirroredStepsAreEqual(t *testing.T) {
	_, s := steps(t, "sheet rect 210 297\nmoves reveal\ncrease bring left to right as keel\nvalley bring TL to keel through T near C as c1\nvalley bring TR to keel through T near C as c2\nvalley bring c1 to keel as d1\nvalley bring c2 to keel as d2\n")
	for _, pair := range [][2]int{{1, 2}, {3, 4}} {
		a, b := s[pair[0]], s[pair[1]]
		if math.Abs(a.PerMM-b.PerMM) > 0.02*math.Max(a.PerMM, b.PerMM) || math.Abs(a.Share-b.Share) > 0.03 {
			t.Errorf("steps %d and %d: %v and %v mm a mm, shares %v and %v", a.No, b.No, a.PerMM, b.PerMM, a.Share, b.Share)
		}
	}
}

// A second way: the same toy folded anew with one line laid half a millimetre beside its
// landmarks. What then moves at the end, a mm for a mm, is what the study says; and what it
// calls free moves nothing.
func TestStudyAgainstFoldingAnew(t *testing.T) {
	head := "sheet rect 210 297\nmoves reveal\n"
	lines := []struct{ text, side string }{
		{"crease bring left to right", "L"},
		{"valley bring TL to [B C] through T near C", "TL"},
		{"valley bring TR to [B C] through T near C", "TR"},
		{"valley along par(bottom,60,C)", "B"},
		{"valley bring c1 to [B C]", "L"},
	}
	names := []string{"keel", "c1", "c2", "hem", "d1"}
	build := func(off int, mm float64) *sequence.Replay {
		var b strings.Builder
		b.WriteString(head)
		for i, l := range lines {
			text := l.text
			if i == off {
				text += fmt.Sprintf(" offset %v toward %s", mm, l.side)
			}
			if i == 3 {
				text += " moving BL"
			}
			b.WriteString(text + " as " + names[i] + "\n")
		}
		return foldtest.Fold(t, b.String())
	}
	exact := build(-1, 0)
	s, err := spread.Of(exact, 0.3, 10, 1)
	if err != nil {
		t.Fatal(err)
	}
	const h = 0.02
	for i := range lines {
		a, b := build(i, h), build(i, -h)
		worst := 0.0
		for name := range exact.Landmarks {
			u, ok1 := placeOf(a, name)
			v, ok2 := placeOf(b, name)
			if ok1 && ok2 {
				worst = math.Max(worst, u.Dist(v)/(2*h))
			}
		}
		got := s.Steps[i].PerMM
		if math.Abs(got-worst) > 0.12*math.Max(got, worst)+0.05 {
			t.Errorf("step %d: the study says %.3f mm a mm, folding anew %.3f", i+1, got, worst)
		}
		if s.Steps[i].Class == spread.Free && worst > spread.FreeMM*1.05 {
			t.Errorf("step %d reads free and moves %.2f mm a mm", i+1, worst)
		}
	}
}

func placeOf(r *sequence.Replay, name string) (geom.Vec, bool) {
	return sequence.Place(r.Final(), r.Landmarks[name])
}
