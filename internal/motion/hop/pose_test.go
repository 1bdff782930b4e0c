package hop

import (
	"math"
	"testing"
)

// In every frame of every hopper the toy keeps its lengths, its foot lies on the table
// until it leaves it, and from one frame to the next nothing jumps.
func TestFramesKeepTheToy(t *testing.T) {
	dist := func(a, b LeapPlace) float64 { return math.Hypot(a.X-b.X, a.Y-b.Y) }
	for _, p := range hoppers(t) {
		w := trying(t, p, on(p, 1), nil)
		toy, _, set, err := w.toyAt(nil)
		if err != nil {
			t.Fatal(err)
		}
		_, d := drawn(toy, w.trial(set))
		if len(d.Frames) < 20 || d.Frames[0].At != 0 || d.Frames[len(d.Frames)-1].At != 1 {
			t.Fatalf("%s: %d frames", p.ID, len(d.Frames))
		}
		long := toy.BodyM + toy.MiddleM + toy.FootM
		for i, f := range d.Frames {
			q := f.Pose
			for _, c := range [][2]float64{{dist(q.Hip, q.Nose), toy.BodyM}, {dist(q.Hip, q.Catch), toy.MiddleM}, {dist(q.Rear, q.Catch), toy.FootM}, {dist(q.Hip, q.CoM), toy.CoMAhead}} {
				if math.Abs(c[0]-c[1]) > 5e-5 {
					t.Fatalf("%s, frame %d (%s): %v m instead of %v", p.ID, i, f.Phase, c[0], c[1])
				}
			}
			if f.Phase != "air" && (q.Catch.Y != 0 || q.Rear.Y != 0) {
				t.Errorf("%s, frame %d: the foot is off the table while it is in its %s", p.ID, i, f.Phase)
			}
			if i > 0 && (f.At <= d.Frames[i-1].At || dist(q.CoM, d.Frames[i-1].Pose.CoM) > long) {
				t.Errorf("%s: frame %d jumps", p.ID, i)
			}
		}
		top := 0.0
		for _, f := range d.Frames {
			top = math.Max(top, f.Pose.CoM.Y)
		}
		if d.HeightM > 0.01 && math.Abs(top-d.HeightM) > 0.1*d.HeightM {
			t.Errorf("%s: %v m up at most, %v said", p.ID, top, d.HeightM)
		}
	}
}
