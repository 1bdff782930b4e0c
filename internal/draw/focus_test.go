package draw_test

import (
	"math"
	"testing"

	. "tussock/internal/draw" //nolint:revive // tests of what is not exported too
	"tussock/internal/sequence"
	"tussock/internal/shelf"
)

// A magnifier shows all of a small fold and not much else; large folds have none.
func TestFocusOnSmallFolds(t *testing.T) {
	small := 0
	for _, id := range shelf.Names() {
		for _, d := range replay(t, id, nil).Steps {
			p, o := Flat(d.Before), Next(d)
			f, ok := Focus(p, o)
			if !ok {
				continue
			}
			small++
			if f[2] > 1.7*SmallPart*math.Max(p.View[2], p.View[3]) {
				t.Errorf("%s step %d: the magnifier shows %v of %v", id, d.No, f, p.View)
			}
			for _, m := range o.Moving {
				for i, v := range m.Points {
					if v < f[i%2] || v > f[i%2]+f[2+i%2] {
						t.Errorf("%s step %d: %v lies outside of %v", id, d.No, v, f)
					}
				}
			}
		}
	}
	if small == 0 {
		t.Error("no fold of the shelf is small")
	}
}

// Turned by its angle the moving part comes to lie above the crease it went over.
func TestAwayGoesUp(t *testing.T) {
	for _, id := range shelf.Names() {
		for _, d := range replay(t, id, nil).Steps {
			a := AwayDeg(d)
			if d.Op != sequence.OpValley && d.Op != sequence.OpMountain {
				continue
			}
			// The way across the line, in picture coordinates, turned clockwise.
			x, y := -float64(d.Side)*d.Line.N.X, float64(d.Side)*d.Line.N.Y
			c, s := math.Cos(a*math.Pi/180), math.Sin(a*math.Pi/180)
			if tx, ty := c*x-s*y, s*x+c*y; math.Abs(tx) > 1e-3 || ty > -0.999 {
				t.Errorf("%s step %d, turned by %v: it goes to %v, %v", id, d.No, a, tx, ty)
			}
		}
	}
}
