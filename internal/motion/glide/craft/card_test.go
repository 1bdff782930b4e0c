package craft

import (
	"math"
	"strings"
	"testing"

	"tussock/internal/geom"
	"tussock/internal/prints"
)

// The angle card's rays lie at the angles that their numbers say, on both sides, and the
// height of a tail edge is that of its angle.
func TestAngleCardIsTrue(t *testing.T) {
	for _, page := range prints.Pages {
		l := AngleCard(page, 10, false)
		c := geom.Vec{X: page.WidthMM / 2, Y: 95}
		seen := map[int]int{}
		for _, s := range l.Strokes {
			d := s.B.Sub(c)
			if s.Kind != prints.Mark || math.Abs(d.Len()-cardArmMM) > 1e-9 {
				continue
			}
			up := geom.Deg(math.Atan2(-d.Y, math.Abs(d.X)))
			if math.Abs(up-math.Round(up)) > 1e-9 {
				t.Errorf("a ray at %v°", up)
			}
			if e := s.A.Sub(c); math.Abs(e.Cross(d)) > 1e-6 {
				t.Errorf("the ray at %v° does not come from the centre", up)
			}
			seen[int(math.Round(up))]++
		}
		for _, deg := range []int{-10, 0, 5, 12, 40} {
			if seen[deg] != 2 {
				t.Errorf("%d rays at %d°", seen[deg], deg)
			}
		}
		words := ""
		for _, w := range l.Words {
			words += w.Text + "\n"
		}
		for _, want := range []string{"10° = 1.7 mm", "20° = 3.4 mm", "100 mm long"} {
			if !strings.Contains(words, want) {
				t.Errorf("no word of %q", want)
			}
		}
		// The keel's slot runs down from the centre, and is the only cut.
		cuts := 0
		for _, s := range l.Strokes {
			if s.Kind == prints.Cut {
				cuts++
				if s.A != c || s.B.Dist(geom.Vec{X: c.X, Y: c.Y + cardKeel}) > 1e-9 {
					t.Errorf("the slot goes from %v to %v", s.A, s.B)
				}
			}
		}
		if cuts != 1 {
			t.Errorf("%d cuts", cuts)
		}
	}
}
