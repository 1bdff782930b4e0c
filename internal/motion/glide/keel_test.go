package glide

import (
	"math"
	"testing"

	"tussock/internal/motion/glide/air"
	"tussock/internal/motion/glide/craft"
	"tussock/internal/sheet"
)

// The keel hangs below the crease of the wings however far they are lifted: its area stays,
// and it answers a rudder alike to both sides.
func TestKeelStaysInAV(t *testing.T) {
	for _, id := range []string{"curlew", "shelduck", "whimbrel", "redshank", "avocet", "godwit", "turnstone"} {
		p := pattern(t, id)
		s, err := sheet.New(p.WidthMM, p.HeightMM, 80, 0.1)
		if err != nil {
			t.Fatal(err)
		}
		var level float64
		for _, wing := range []float64{90, 84, 78, 70, 60, 50, 100, 110} {
			r := p.Run(s, map[string]float64{"wing": wing})
			if r.Err != nil {
				t.Fatal(id, r.Err)
			}
			toy, ok := craft.Of(r)
			if !ok || !toy.Glider {
				t.Fatalf("%s at %v is no glider", id, wing)
			}
			keel := 0.0
			for _, q := range toy.Shape.Strips {
				if q.Part == air.Keel {
					keel += q.Area()
				}
			}
			if wing == 90 {
				level = keel
			}
			if !(keel > 0.9*level && keel < 1.1*level) || level < 5e-4 {
				t.Errorf("%s with wings at %v: %.1f cm² of keel, level %.1f", id, wing, 1e4*keel, 1e4*level)
			}
			d := toy.Shape.Derivatives(toy.Weight.CoM)
			if !(d.CnRud > 1e-3) || !(d.CYrud < -1e-3) || math.Abs(d.CYa) > 0.05*math.Abs(d.CNa) {
				t.Errorf("%s with wings at %v: rudder turns by %.5f, lift pushes aside by %.4f", id, wing, d.CnRud, d.CYa)
			}
		}
	}
}
