package hop

import (
	"math"
	"testing"
)

// Over its reach every knob of every hopper moves what it moves without a jump, and what
// comes of it is a number.
func TestHopperKnobsMoveSmoothly(t *testing.T) {
	const steps = 40
	for _, p := range hoppers(t) {
		w := trying(t, p, on(p, 1), nil)
		for _, l := range w.Levers(nil) {
			if l.Trial {
				continue
			}
			var seen [][3]float64
			moved := 0.0
			for k := range steps + 1 {
				v := l.Min + (l.Max-l.Min)*float64(k)/steps
				if l.Name == KnobNoseUp && v == 0 {
					continue // 0 is what the legs give
				}
				toy, g, set, err := w.toyAt(map[string]float64{l.Name: v})
				if err != nil {
					smooth(t, p.ID+" "+l.Name, seen)
					seen = nil
					continue
				}
				a := toy.Leap(w.trial(set))
				for _, x := range []float64{a.LengthM, a.HeightM, a.HalfFlips, toy.NoseUpM, toy.CoMUp, g.LayersMean} {
					if math.IsNaN(x) || math.Abs(x) > 30 {
						t.Errorf("%s, %s %v: %+v", p.ID, l.Name, v, a)
					}
				}
				if len(seen) > 0 {
					moved = math.Max(moved, math.Abs(1e3*toy.Stored(toy.Pressed())-seen[0][0])+math.Abs(math.Hypot(a.Vx, a.Vy)-seen[0][1])+math.Abs(g.CoMMM-seen[0][2])+1e3*math.Abs(a.LengthM))
				}
				seen = append(seen, [3]float64{1e3 * toy.Stored(toy.Pressed()), math.Hypot(a.Vx, a.Vy), g.CoMMM})
			}
			smooth(t, p.ID+" "+l.Name, seen)
			if moved == 0 {
				t.Errorf("%s: %s does nothing", p.ID, l.Name)
			}
		}
	}
}

// smooth compares each value with what its neighbours let expect.
func smooth(t *testing.T, name string, seen [][3]float64) {
	t.Helper()
	for i := 2; i+2 < len(seen); i++ {
		for k, what := range []string{"energy, mJ", "speed, m/s", "centre of mass, mm"} {
			from, at, to := seen[i-1][k], seen[i][k], seen[i+1][k]
			trend := math.Max(math.Abs(from-seen[i-2][k]), math.Abs(seen[i+2][k]-to))
			if jump := math.Abs(at - (from+to)/2); jump > 2*trend+0.06*math.Abs(at)+0.02 {
				t.Errorf("%s: the %s is %.3f between %.3f and %.3f", name, what, at, from, to)
			}
		}
	}
}
