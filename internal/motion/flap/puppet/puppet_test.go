package puppet

import (
	"math"
	"testing"

	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/motion"
	"tussock/internal/motion/flap/snap"
	"tussock/internal/motion/motiontest"
	"tussock/internal/motion/toys"
	"tussock/internal/sheet"
)

func bench(t testing.TB, gsm, thick float64, c motion.Conditions) *Workbench {
	t.Helper()
	w := Way()
	w.Complete()
	full, err := w.Full(c)
	if err != nil {
		t.Fatal(err)
	}
	sh, err := sheet.New(150, 150, gsm, thick)
	if err != nil {
		t.Fatal(err)
	}
	return motion.Inner(w.On(motiontest.Pattern(t, "mudlark", language), sh).Under(full, motion.Calibration{})).(*Workbench)
}

func at(t testing.TB, w *Workbench, knobs map[string]float64) set {
	t.Helper()
	s, err := w.at(t.Context(), knobs)
	if err != nil {
		t.Fatal(err)
	}
	return s
}

// What is read off the folded toy is what it was folded by: the gap on both sides, the tube,
// the short crease, the length; and the swing is that of the cone.
func TestReadOffTheToy(t *testing.T) {
	w := bench(t, 62, 0.075, nil)
	for _, c := range []struct{ gap, girth, short, push float64 }{{0.8, 54, 25, 60}, {0.5, 48, 30, 40}, {1.5, 62, 40, 80}} {
		s := at(t, w, map[string]float64{"gap": c.gap, "girth": c.girth, "short": c.short, KnobPush: c.push})
		if math.Abs(s.GapMM-2*c.gap) > 0.02 || math.Abs(s.GirthMM-c.girth) > 0.5 || math.Abs(s.CreaseMM-c.short) > 0.02 || math.Abs(s.LongMM-150) > 0.1 {
			t.Errorf("%+v: gap %v, girth %v, crease %v, length %v", c, s.GapMM, s.GirthMM, s.CreaseMM, s.LongMM)
		}
		want := 0.378 * c.push * math.Min(1, c.short/(s.AroundMM/3))
		if got := geom.Deg(s.swing(s.push)); math.Abs(got-want) > 0.01*want {
			t.Errorf("%+v: swings by %v°, the cone says %v", c, got, want)
		}
		if m := (1 + 0.3) * s.b * s.AroundMM / (c.girth / (2 * math.Pi)); math.Abs(s.moment()-m) > 0.02*m {
			t.Errorf("%+v: moment %v, (1 + ν) B a is %v", c, s.moment(), m)
		}
	}
}

// Trends with sign and order: thick paper does not snap, a tight tube takes more, pushed out
// takes about half; the tube fits one finger and not others; too small a gap tears.
func TestTrends(t *testing.T) {
	thin, office, card := at(t, bench(t, 62, 0.075, nil), nil), at(t, bench(t, 80, 0.1, nil), nil), at(t, bench(t, 160, 0.195, nil), nil)
	if !(thin.takes(peaked) < office.takes(peaked) && office.takes(peaked) < card.takes(peaked)) {
		t.Errorf("snaps take %v, %v, %v", thin.takes(peaked), office.takes(peaked), card.takes(peaked))
	}
	if r := office.takes(peaked) / thin.takes(peaked); math.Abs(r-math.Pow(0.1/0.075, 3)) > 0.05 {
		t.Errorf("a third thicker takes %v times as much, not its cube", r)
	}
	if m := bench(t, 160, 0.195, nil).spread(card).usual(); m != modeNoSnap {
		t.Errorf("card %s", m)
	}
	w := bench(t, 62, 0.075, nil)
	in, out := at(t, w, nil), at(t, w, map[string]float64{KnobSense: 1})
	if r := out.moment() / in.moment(); math.Abs(r-0.7/1.3) > 1e-9 {
		t.Errorf("pushed out takes %v of the moment", r)
	}
	for _, c := range []struct {
		finger float64
		mode   string
	}{{55, modeFlaps}, {46, modeSlips}, {68, modeTooWide}} {
		b := bench(t, 62, 0.075, motion.Conditions{"finger": c.finger})
		if m := b.spread(at(t, b, nil)).usual(); m != c.mode {
			t.Errorf("a finger of %v mm: %s", c.finger, m)
		}
	}
	tight := at(t, bench(t, 120, 0.15, nil), map[string]float64{"gap": 0.2})
	wide := at(t, bench(t, 120, 0.15, nil), map[string]float64{"gap": 1})
	if tight.strain() <= 0.02 || wide.strain() != 0 {
		t.Errorf("strains %v with hardly a gap, %v with one", tight.strain(), wide.strain())
	}
	if m := bench(t, 120, 0.15, nil).spread(tight).usual(); m != modeTears {
		t.Errorf("without a gap: %s", m)
	}
	// Beats: two in a hundred are lost with each.
	b := w.press(in, in.push, peaked, 1, 0.02, 1)
	if left := geom.Deg(in.swing(in.push)) * math.Pow(1-slackens, b.beats); math.Abs(left-slackDeg) > 0.01 {
		t.Errorf("after %v beats %v° are left", b.beats, left)
	}
}

// While it is drawn each half is the stiff half of the tube, turned about the middle by the
// angle that is told.
func TestFramesHoldTheAngle(t *testing.T) {
	w := bench(t, 62, 0.075, nil)
	s := at(t, w, nil)
	area := func(p []geom.Vec3) float64 {
		var sum geom.Vec3
		for k := 1; k+1 < len(p); k++ {
			sum = sum.Add(p[k].Sub(p[0]).Cross(p[k+1].Sub(p[0])))
		}
		return sum.Len() / 2
	}
	whole := 0.0
	for i := range s.pose.State.F {
		whole += area(s.pose.Corners(fold.FacetID(i)))
	}
	tip := func(angle float64) float64 { // of the farthest spot above the middle, from the axis
		far, best := 0.0, geom.Vec3{}
		sum := 0.0
		for _, h := range s.beaten(angle) {
			sum += area(h.points)
			for _, v := range h.points {
				if d := v.Sub(s.middle); d.Dot(s.along) > 0 && d.Len() > far {
					far, best = d.Len(), d
				}
			}
		}
		if math.Abs(sum-whole) > 1e-6*whole {
			t.Errorf("%v of %v mm² of paper is drawn", sum, whole)
		}
		return math.Atan2(best.Dot(s.out), best.Dot(s.along))
	}
	rest := tip(0)
	for _, deg := range []float64{5, 15, 30} {
		if got := geom.Deg(math.Abs(tip(geom.Rad(deg)) - rest)); math.Abs(got-deg) > 1e-6 {
			t.Errorf("drawn turned by %v°, told %v", got, deg)
		}
	}
	if d := w.drawing(s, w.spread(s)); len(d.Frames) != framesDrawn || d.Frames[framesDrawn-1].SwingDeg < 5 || len(d.Fading) < 4 {
		t.Errorf("%d frames, %d of fading", len(d.Frames), len(d.Fading))
	}
}

// The clinic's remedies name a figure, and those that turn a knob help by the model.
func TestClinic(t *testing.T) {
	log := func(chip string) []motion.Noted {
		n := motion.Noted{Chips: []string{chip}}
		return []motion.Noted{n, n, n}
	}
	slipping := bench(t, 62, 0.075, motion.Conditions{"finger": 50})
	f, err := slipping.Examine(t.Context(), nil, log(slips))
	if err != nil || f.Remedy == nil || len(f.Remedy.Changes) != 1 || f.Remedy.Changes[0].Knob != "girth" {
		t.Fatalf("%+v, %v", f, err)
	}
	if u := slipping.undersize(at(t, slipping, toys.With(nil, f.Remedy.Changes...))); u < 0.01 || u > 0.03 {
		t.Errorf("after the remedy the tube is %v under", u)
	}
	tearing := bench(t, 120, 0.15, nil)
	knobs := map[string]float64{"gap": 0.2}
	f, err = tearing.Examine(t.Context(), knobs, log(tore))
	if err != nil || f.Remedy == nil || f.Confidence != motion.Likely || at(t, tearing, toys.With(knobs, f.Remedy.Changes...)).strain() > 1e-3 {
		t.Errorf("%+v, %v", f.Remedy, err)
	}
	heavy := bench(t, 120, 0.15, nil)
	f, err = heavy.Examine(t.Context(), nil, log(stiff))
	if err != nil || f.Causes[0].Words != "The paper is too stiff for fingers" || f.Confidence != motion.Likely {
		t.Errorf("%+v, %v", f.Causes, err)
	}
	// The paper that it asks for would snap.
	thin := heavy.thinner(1e3 * heavy.gives() / (1e3 * at(t, heavy, nil).takes(peaked)))
	if s := at(t, bench(t, thin, 0.15*thin/120, nil), nil); s.takes(peaked) > 1.15*heavy.gives() {
		t.Errorf("paper of %v g/m² takes %v", thin, s.takes(peaked))
	}
	if snap.Swing(1) < 0.37 || snap.Swing(1) > 0.39 {
		t.Errorf("swing %v", snap.Swing(1))
	}
}

func BenchmarkPredict(b *testing.B) {
	w := bench(b, 62, 0.075, nil)
	for i := 0; b.Loop(); i++ {
		if _, err := w.Predict(b.Context(), map[string]float64{KnobPush: 50 + float64(i%20)}, nil); err != nil {
			b.Fatal(err)
		}
	}
}
