package bird

import (
	"math"
	"strings"
	"testing"

	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/motion"
	"tussock/internal/motion/flap/hump"
	"tussock/internal/motion/motiontest"
	"tussock/internal/motion/toys"
	"tussock/internal/sheet"
)

func bench(t testing.TB, side float64, c motion.Conditions, own motion.Calibration) *Workbench {
	t.Helper()
	w := Way()
	w.Complete()
	full, err := w.Full(c)
	if err != nil {
		t.Fatal(err)
	}
	sh, err := sheet.New(side, side, 62, 0.075)
	if err != nil {
		t.Fatal(err)
	}
	return motion.Inner(w.On(motiontest.Pattern(t, "lapwing", language), sh).Under(full, own)).(*Workbench)
}

func at(t testing.TB, w *Workbench, knobs map[string]float64) set {
	t.Helper()
	s, err := w.at(t.Context(), knobs)
	if err != nil {
		t.Fatal(err)
	}
	return s
}

// What a pull does is what two hands apart by a chord do: the opening is found again by going
// through all openings, and for hands that hold both ridges alike the chord is 2 r sin φ.
func TestPullOpensByTheChord(t *testing.T) {
	s := at(t, bench(t, 150, nil, motion.Calibration{}), map[string]float64{KnobNeck: 90, KnobTail: 90, KnobCurve: 10})
	for _, pull := range []float64{1, 3, 6} {
		phi, bound := s.opened(pull*mm, 1)
		if bound {
			t.Fatalf("bound at %v mm", pull)
		}
		best, off := 0.0, math.Inf(1)
		for a := s.rest; a < s.ceiling; a += 1e-5 {
			if d := math.Abs(s.apart(a) - s.apart(s.rest) - pull*mm); d < off {
				best, off = a, d
			}
		}
		if math.Abs(best-phi) > 2e-5 {
			t.Errorf("%v mm: %v, found %v", pull, phi, best)
		}
		if back := s.pullFor(phi, 1); math.Abs(back-pull*mm) > 1e-9 {
			t.Errorf("%v mm comes back as %v", pull, back/mm)
		}
	}
	even := s
	even.Lean, even.HoldM, even.PullM = 0, 0.05, 0.05
	for _, deg := range []float64{5, 10, 20, 30} {
		if want := 2 * 0.05 * math.Sin(geom.Rad(deg)); math.Abs(even.apart(geom.Rad(deg))-want) > 1e-12 {
			t.Errorf("hands %v apart at %v°, want %v", even.apart(geom.Rad(deg)), deg, want)
		}
	}
	// The figures of the design for arms of 50 mm: a pull along the chord, from 5° each side.
	even.Rest, even.Neck, even.Tail, even.CurveM = geom.Rad(5), math.Pi/2, math.Pi/2, 0.05
	even.settle()
	for _, c := range []struct{ pull, swing, tol float64 }{{10, 10.5, 0.3}, {20, 18.0, 0.5}} {
		phi, _ := even.opened(c.pull*mm, 1)
		if got := geom.Deg(even.wing(phi) - even.wing(even.rest)); math.Abs(got-c.swing) > c.tol {
			t.Errorf("a pull of %v mm swings by %.2f°, want %v", c.pull, got, c.swing)
		}
	}
}

// While it is drawn the wings stand exactly where the law of the hump has their roots, and
// the ridges stand apart by what is told.
func TestFramesHoldTheLinkage(t *testing.T) {
	w := bench(t, 150, nil, motion.Calibration{})
	s := at(t, w, nil)
	d := w.drawing(s)
	if len(d.Frames) != framesDrawn {
		t.Fatalf("%d frames", len(d.Frames))
	}
	base := s.pose(0)
	for i, f := range d.Frames {
		phi := geom.Rad(f.OpenDeg / 2)
		lam, ok := hump.Square.Wing(phi)
		from, _ := hump.Square.Wing(s.rest)
		if want := geom.Deg(lam - from); !ok || math.Abs(f.SwingDeg-want) > 0.01 {
			t.Errorf("frame %d: swing %v, the law says %v", i, f.SwingDeg, want)
		}
		// The angle between both ridges as they are drawn.
		a := math.Atan2(f.Hump.Neck.X, -f.Hump.Neck.Y) - math.Atan2(f.Hump.Tail.X, -f.Hump.Tail.Y)
		if math.Abs(geom.Deg(a)-f.OpenDeg) > 0.01 {
			t.Errorf("frame %d: ridges %v° apart, told %v", i, geom.Deg(a), f.OpenDeg)
		}
		// The angle that the wings have turned by in space.
		pose := s.pose(f.SwingDeg)
		turned, wings := 0.0, 0
		for k := range pose.State.F {
			if pose.PartOf(fold.FacetID(k)) == 0 {
				continue
			}
			n, m := base.At[k].Turn(geom.Vec3{Z: 1}), pose.At[k].Turn(geom.Vec3{Z: 1})
			turned, wings = turned+geom.Deg(math.Acos(math.Max(-1, math.Min(1, n.Dot(m))))), wings+1
		}
		if wings == 0 || math.Abs(turned/float64(wings)-f.SwingDeg) > 0.05 {
			t.Errorf("frame %d: wings turned by %v°, told %v", i, turned/float64(wings), f.SwingDeg)
		}
		if u := pose.Unsound(); u != "" {
			t.Errorf("frame %d: %s", i, u)
		}
	}
}

// Trends with sign and order.
func TestTrends(t *testing.T) {
	w := bench(t, 150, motion.Conditions{"pull": 5}, motion.Calibration{})
	swing := func(k map[string]float64) float64 { return geom.Deg(w.beat(at(t, w, k), w.PullM, comes).swing) }
	flat, folded, loose := swing(map[string]float64{KnobRest: 6}), swing(nil), swing(map[string]float64{KnobRest: 30})
	if !(flat > folded && folded > loose) {
		t.Errorf("swings %v pressed flat, %v, %v loosened", flat, folded, loose)
	}
	if near, far := swing(map[string]float64{KnobHold: 18}), swing(map[string]float64{KnobHold: 34}); near <= far {
		t.Errorf("held near %v, far %v", near, far)
	}
	// What binds is what was made tight, and freeing it moves the limit.
	for _, c := range []struct {
		knobs map[string]float64
		by    bind
	}{{map[string]float64{KnobNeck: 20}, byNeck}, {map[string]float64{KnobTail: 20}, byTail}, {map[string]float64{KnobCurve: 0}, byWing}} {
		s := at(t, w, c.knobs)
		if s.binds != c.by {
			t.Errorf("%v: binds by %s", c.knobs, s.binds)
		}
		fix, do := w.free(w.Values(c.knobs), s)
		after := at(t, w, toys.With(c.knobs, fix...))
		if do == "" || after.pullFor(after.ceiling, comes) <= s.pullFor(s.ceiling, comes)+0.2*mm {
			t.Errorf("%v: %s frees it from %v to %v mm", c.knobs, do, s.pullFor(s.ceiling, comes)/mm, after.pullFor(after.ceiling, comes)/mm)
		}
	}
	// Force grows with thickness cubed, and a smaller bird is as wide for a smaller pull.
	thin := at(t, w, nil)
	thick := thin
	thick.Sheet.ThicknessMM *= 2
	thick.stiffness *= 8
	phi := (thin.rest + thin.ceiling) / 2
	if r := thick.force(phi) / thin.force(phi); math.Abs(r-8) > 0.01 {
		t.Errorf("twice the thickness pulls %v times as hard", r)
	}
	small := at(t, bench(t, 75, nil, motion.Calibration{}), map[string]float64{KnobHold: 12.5, KnobPull: 4})
	if r := thin.pullFor(phi, 1) / small.pullFor(phi, 1); math.Abs(r-2) > 0.02 {
		t.Errorf("twice the size wants %v times the pull", r)
	}
}

// Three pulls teach one number: predictions then hold the middle of the log.
func TestLearning(t *testing.T) {
	w := bench(t, 150, motion.Conditions{"pull": 6}, motion.Calibration{})
	var log []motion.Noted
	for _, v := range []float64{6, 7, 8, 7, 7} {
		log = append(log, motion.Noted{Kind: "swing", Read: map[string]float64{Swing: v, Pull: 6}})
	}
	c := learn([]motion.Observation{{Trying: w, Log: log, Build: 1}})
	before, after := w.spread(at(t, w, nil)).swing, bench(t, 150, motion.Conditions{"pull": 6}, c).spread(at(t, w, nil)).swing
	if c.Trials != 5 || c.Factor >= 1 || math.Abs(after.Middle-7) > 1.5 || math.Abs(after.Middle-7) >= math.Abs(before.Middle-7) || after.Hi-after.Lo >= before.Hi-before.Lo {
		t.Errorf("%+v: %v, learnt %v", c, before, after)
	}
	if none := learn(nil); none.Factor != 0 || none.Trials != 0 {
		t.Errorf("learnt from nothing: %+v", none)
	}
}

// The clinic names what binds, with its figures, and its remedy helps by the model.
func TestClinic(t *testing.T) {
	for _, c := range []struct {
		knobs map[string]float64
		seen  string
		knob  string
	}{
		{map[string]float64{KnobCurve: 0}, locked, KnobCurve},
		{map[string]float64{KnobNeck: 18}, locked, KnobNeck},
		{map[string]float64{KnobRest: 40}, opens, KnobRest},
		{map[string]float64{KnobTail: 16}, stuck, KnobNeck},
		{map[string]float64{KnobHold: 8}, tore, KnobHold},
		{nil, limp, KnobCurve},
	} {
		w := bench(t, 150, nil, motion.Calibration{})
		seen := []motion.Noted{{Chips: []string{c.seen}}, {Chips: []string{c.seen}}, {Chips: []string{c.seen}}}
		f, err := w.Examine(t.Context(), c.knobs, seen)
		if err != nil || f.Remedy == nil || len(f.Remedy.Changes) == 0 {
			t.Errorf("%v %s: %+v, %v", c.knobs, c.seen, f, err)
			continue
		}
		if f.Remedy.Changes[0].Knob != c.knob || len(f.Causes) < 2 || !strings.ContainsAny(f.Causes[0].Law, "0123456789") {
			t.Errorf("%v %s: %+v for %+v", c.knobs, c.seen, f.Remedy, f.Causes)
		}
		if c.seen == locked || c.seen == opens {
			if f.Remedy.After == nil || f.Remedy.After.Middle <= f.Remedy.Now.Middle {
				t.Errorf("%v %s: from %+v to %+v", c.knobs, c.seen, f.Remedy.Now, f.Remedy.After)
			}
		}
	}
}

func BenchmarkPredict(b *testing.B) {
	w := bench(b, 150, nil, motion.Calibration{})
	for i := 0; b.Loop(); i++ {
		if _, err := w.Predict(b.Context(), map[string]float64{KnobRest: 10 + float64(i%20)/10}, nil); err != nil {
			b.Fatal(err)
		}
	}
}
