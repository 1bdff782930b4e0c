package fold_test

import (
	"fmt"
	"math"
	"slices"
	"testing"
	"time"

	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/sheet"
)

// halved is a sheet halved n times, by straight or by slightly skewed lines.
func halved(t testing.TB, n int, skew float64) *fold.State {
	t.Helper()
	sh, err := sheet.New(200, 200, 80, 0.1)
	if err != nil {
		t.Fatal(err)
	}
	s := fold.Start(sh)
	for k := 1; k <= n; k++ {
		s = halve(t, s, k, skew)
	}
	return s
}

func halve(t testing.TB, s *fold.State, k int, skew float64) *fold.State {
	t.Helper()
	c := s.Box().Centre()
	dir := geom.Vec{Y: 1}
	if k%2 == 0 {
		dir = geom.Vec{X: 1}
	}
	l := geom.LineAt(c, geom.Rotation(skew*float64(k), geom.Vec{}).Apply(dir))
	p, err := s.SimpleFold(fold.Selection{Line: l, Side: 1, Sense: fold.ValleySense}, fold.CreaseID(k))
	if err != nil {
		t.Fatal(err)
	}
	out, err := s.Apply(p)
	if err != nil {
		t.Fatal(err)
	}
	return out
}

// BenchmarkStacked is the whole replay of repeated halving: the forced path.
func BenchmarkStacked(b *testing.B) {
	for _, c := range []struct {
		n    int
		skew float64
	}{{6, 0}, {7, 0}, {8, 0}, {9, 0}, {6, 0.02}, {7, 0.02}, {8, 0.02}, {9, 0.02}} {
		name := fmt.Sprintf("straight-%d", len(halved(b, c.n, c.skew).F))
		if c.skew != 0 {
			name = fmt.Sprintf("skewed-%d", len(halved(b, c.n, c.skew).F))
		}
		b.Run(name, func(b *testing.B) {
			b.ReportAllocs()
			for b.Loop() {
				halved(b, c.n, c.skew)
			}
		})
	}
}

// solverStep is a fold of a stack through the layer solver: the same as halving,
// with the order of everything that moves looked for.
func solverStep(t testing.TB, n, movers int) (*fold.State, fold.Plan) {
	t.Helper()
	s := halved(t, n, 0.02)
	b := s.Box()
	l := geom.LineAt(geom.Vec{X: b.MinX + 0.72*b.Width(), Y: b.Centre().Y}, geom.Vec{X: 0.05, Y: 1})
	var set []fold.FacetID
	for k := 1; len(set) < movers; k++ { // the uppermost layers that hang together
		stack := s.StackAt(geom.Vec{X: b.MinX + 0.3*b.Width(), Y: b.Centre().Y})
		set = s.Closure(fold.Selection{Line: l, Side: -1, Sense: fold.ValleySense, Seeds: stack[:k]})
	}
	splits := []fold.Split{{Line: l, Facets: s.Crossed(set, l)}}
	d, err := s.Divide(splits, 99)
	if err != nil {
		t.Fatal(err)
	}
	p := fold.Plan{Splits: splits, Solve: true, Crease: 99}
	body := fold.Body{T: geom.Reflection(l)}
	moved := map[fold.FacetID]bool{}
	for i := range d.F {
		if slices.Contains(set, d.F[i].Parent) && l.Side(d.Folded(fold.FacetID(i)).Centroid()) < 0 {
			body.Facets = append(body.Facets, fold.FacetID(i))
			moved[fold.FacetID(i)] = true
		}
	}
	p.Bodies = []fold.Body{body}
	for _, i := range body.Facets {
		for j := range d.F {
			if !moved[fold.FacetID(j)] {
				p.Hints = append(p.Hints, fold.Hint{I: i, J: fold.FacetID(j), Sign: 1})
			}
		}
	}
	return s, p
}

func BenchmarkSolverStep(b *testing.B) {
	for _, c := range [][2]int{{6, 60}, {7, 56}} {
		s, p := solverStep(b, c[0], c[1])
		after, err := s.Apply(p)
		if err != nil {
			b.Fatal(err)
		}
		b.Run(fmt.Sprintf("%d-of-%d-pieces-move", len(p.Bodies[0].Facets), len(after.F)), func(b *testing.B) {
			b.ReportAllocs()
			for b.Loop() {
				if _, err := s.Apply(p); err != nil {
					b.Fatal(err)
				}
			}
		})
	}
}

// Growth with the number of pieces: the order is a matrix, so a little over the
// square is right, and a cube is not.
func TestGrowthIsAboutQuadratic(t *testing.T) {
	took := func(n int) (float64, float64) {
		best := math.Inf(1)
		var pieces int
		for range 5 {
			start := time.Now()
			pieces = len(halved(t, n, 0).F)
			best = min(best, time.Since(start).Seconds())
		}
		return best, float64(pieces)
	}
	// 2.1 is the bar; other work shares the machine, and slows down now one, now the
	// other: a growth that is really too fast is too fast every time.
	const tries, most = 5, 2.4
	for try := 1; ; try++ {
		a, na := took(6)
		b, nb := took(9)
		power := math.Log(b/a) / math.Log(nb/na)
		t.Logf("%.0f pieces %.2f ms, %.0f pieces %.2f ms: power %.2f", na, 1e3*a, nb, 1e3*b, power)
		if power <= most {
			return
		}
		if try == tries {
			t.Fatalf("time grows with the power %.2f of the pieces", power)
		}
		time.Sleep(200 * time.Millisecond)
	}
}
