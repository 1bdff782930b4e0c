package wheels

import (
	"fmt"
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"tussock/internal/geom"
	"tussock/internal/motion"
	"tussock/internal/motion/motiontest"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
	"tussock/internal/tune"
)

func pattern(t testing.TB, id string) *sequence.Pattern {
	t.Helper()
	return motiontest.Pattern(t, id, language)
}

func on(t testing.TB, p *sequence.Pattern, w, h, gsm float64) *Shapes {
	t.Helper()
	s, err := sheet.New(w, h, gsm, 0.1)
	if err != nil {
		t.Fatal(err)
	}
	made := Way()
	return newShapes(p, s, &made.Way)
}

// bench is a wheel under conditions that differ from the usual ones.
func bench(t testing.TB, s *Shapes, c motion.Conditions) *Workbench {
	t.Helper()
	all, err := s.way.Full(c)
	if err != nil {
		t.Fatal(err)
	}
	w, ok := s.Under(all, motion.Calibration{}).(*Workbench)
	if !ok {
		t.Fatal("no workbench")
	}
	return w
}

func near(t testing.TB, what string, got, want, part float64) {
	t.Helper()
	if math.IsNaN(got) || math.Abs(got-want) > part*math.Abs(want) {
		t.Errorf("%s: %.5g, want %.5g to %.2g", what, got, want, part)
	}
}

// pushed is the moment of a wind about the axle by brute force: every piece of paper is a
// plate that is pressed square to itself by the slope that it meets. Positive is clockwise
// seen from where the wind comes.
func pushed(g Geometry, wind geom.Vec3) float64 {
	sum := 0.0
	for i := range g.pose.State.F {
		n := g.pose.At[i].Turn(geom.Vec3{Z: 1})
		p := g.pose.State.F[i].Poly
		at := g.pose.At[i].Apply(geom.Vec3{X: p.Centroid().X, Y: p.Centroid().Y}).Sub(g.axis.foot)
		force := n.Scale(wind.Dot(n) * p.Area())
		sum += at.Cross(force).Dot(wind)
	}
	return sum
}

// Every number of blades folds from a square and from an office sheet, clockwise and against
// the clock: the pose closes and is even, the words count what is there, and the side that
// wind turns it to is that of forces on the folded paper, from either side.
func TestEveryNumberOfBlades(t *testing.T) {
	p := pattern(t, "seaaster")
	for _, size := range [][2]float64{{150, 150}, {210, 297}, {215.9, 279.4}} {
		s := on(t, p, size[0], size[1], 80)
		for n := 3; n <= 8; n++ {
			var mass [2]float64
			for i, hand := range []float64{1, -1} {
				knobs := map[string]float64{"n": float64(n), "hand": hand}
				r := p.Run(s.Sheet, knobs)
				if r.Err != nil {
					t.Fatalf("%v, %d blades: %v", size, n, r.Err)
				}
				g, err := Of(r)
				if err != nil {
					t.Fatal(err)
				}
				if why := g.pose.Unsound(); why != "" {
					t.Errorf("%v, %d blades, hand %v: %s", size, n, hand, why)
				}
				if len(g.Leaves) != n || g.OffMM > 0.01 || g.Sense != int(hand) {
					t.Errorf("%v, %d blades, hand %v: %d leaves, centre of mass %v mm off, sense %d", size, n, hand, len(g.Leaves), g.OffMM, g.Sense)
				}
				for _, way := range []float64{1, -1} {
					if q := pushed(g, g.axis.up.Scale(way)); q*hand <= 0 {
						t.Errorf("%d blades, hand %v, wind %v: forces turn it by %v", n, hand, way, q)
					}
				}
				apothem := g.FlatMM / math.Tan(math.Pi/float64(n))
				near(t, "tall", g.TallMM, apothem, 1e-6)
				mass[i] = g.MassG
				near(t, "mass", g.MassG, geom.Polygon(r.Sheet.Outline()).Area()*r.Sheet.GSM*1e-6, 1e-9)
				said := ""
				for _, d := range r.Steps {
					said += d.Say + " " + d.Looks + " "
				}
				for _, count := range []string{fmt.Sprintf("%d times", n), fmt.Sprintf("%d creases", 2*n), fmt.Sprintf("all %d lie", n), fmt.Sprintf("%d layers", 2*n), fmt.Sprintf("%d leaves lie on one side and %d on the other", n-n/2, n/2)} {
					if !strings.Contains(said, count) {
						t.Errorf("%d blades: the words do not say %q", n, count)
					}
				}
				if top := r.Steps[2].After; len(top.F) != 2*n {
					t.Errorf("%d blades: %d pieces in the pack", n, len(top.F))
				}
			}
			near(t, "mirrored", mass[0], mass[1], 1e-12)
		}
	}
	// Centre of mass and inertia of five blades, before anything is curled, by hand.
	r := p.Run(on(t, p, 113.262, 107.719, 80).Sheet, map[string]float64{"rim": 80})
	g, err := Of(r.UpTo(18))
	if err != nil {
		t.Fatal(err)
	}
	near(t, "centre of mass over the foot", g.CoMMM, g.TallMM/3, 1e-6)
	near(t, "about the axle", g.UprightGMM2, g.MassG*g.FlatMM*g.FlatMM/6, 1e-6)
}

// The turbine has four blades that stand square to each other, whichever way it is curled; a
// blade curled to the other side is refused.
func TestTurbine(t *testing.T) {
	p := pattern(t, "marshmill")
	for _, hand := range []float64{1, -1} {
		r := p.Run(on(t, p, 100, 100, 80).Sheet, map[string]float64{"hand": hand})
		g, err := Of(r)
		if err != nil || r.Err != nil {
			t.Fatal(err, r.Err)
		}
		if len(g.Leaves) != 4 || g.Sense != int(hand) || g.OffMM > 0.01 || !g.pose.Sound() {
			t.Errorf("hand %v: %d blades, sense %d, %v mm off, %s", hand, len(g.Leaves), g.Sense, g.OffMM, g.pose.Unsound())
		}
		for _, way := range []float64{1, -1} {
			if q := pushed(g, g.axis.up.Scale(way)); q*hand <= 0 {
				t.Errorf("hand %v, wind %v: forces turn it by %v", hand, way, q)
			}
		}
		// One leaf of a mirror image.
		g.Leaves[2].Lies = -g.Leaves[2].Lies
		if why := g.unequal(); !strings.Contains(why, "unequal: blade 3 of 4 lies the other way") {
			t.Errorf("a leaf of a mirror image: %q", why)
		}
	}
}

// What is predicted goes with what goes in, and the way that it must.
func TestPredictionFollows(t *testing.T) {
	s := on(t, pattern(t, "seaaster"), 150, 150, 80)
	at := func(c motion.Conditions, knobs map[string]float64) motion.Prediction {
		t.Helper()
		p, err := bench(t, s, c).Predict(t.Context(), knobs, nil)
		if err != nil || !p.Works {
			t.Fatal(err, p.Mode)
		}
		for _, o := range p.Outcomes {
			if !(o.Lo <= o.Middle && o.Middle <= o.Hi) {
				t.Errorf("%+v", o)
			}
		}
		return p
	}
	k := func(name string, v float64) map[string]float64 { return map[string]float64{name: v} }
	base := at(nil, nil)
	if m := base.Outcomes[0].Middle; m < 2 || m > 25 {
		t.Errorf("%v turns a second by a breath", m)
	}
	for _, c := range []struct {
		what  string
		knobs map[string]float64
		how   motion.Conditions
		more  bool
	}{
		{"steeper blades", k(KnobAngle, 60), nil, false}, {"a thick pin", k(KnobPin, 3), nil, false}, {"a hard breath", nil, motion.Conditions{"breath": 2}, true},
		{"a soft breath", nil, motion.Conditions{"breath": 0}, false}, {"the tip first: steeper by its curl", nil, motion.Conditions{"up": tipFirst}, false},
		{"tighter rims lie flatter", k("rim", 15), nil, true}, {"a wide mouth", nil, motion.Conditions{"mouth": 20}, true},
	} {
		got := at(c.how, c.knobs).Outcomes[0].Middle
		if (got > base.Outcomes[0].Middle) != c.more || got == base.Outcomes[0].Middle {
			t.Errorf("%s: %v after %v", c.what, got, base.Outcomes[0].Middle)
		}
	}
	fall := at(motion.Conditions{"drive": byFall, "up": tipFirst}, nil)
	if v := fall.Outcomes[0].Middle; v < 0.7 || v > 2 {
		t.Errorf("falls 2 m in %v s", v)
	}
	if v := at(motion.Conditions{"drive": byFall, "up": tipFirst}, k(KnobTape, 0.3)).Outcomes[0].Middle; v >= fall.Outcomes[0].Middle {
		t.Errorf("heavier it falls in %v s after %v", v, fall.Outcomes[0].Middle)
	}
	if v := at(motion.Conditions{"drive": byFall, "height": 4, "up": tipFirst}, nil).Outcomes[0].Middle; v <= fall.Outcomes[0].Middle {
		t.Errorf("from twice the height in %v s", v)
	}
	if q := at(motion.Conditions{"drive": byFan, "wind": 0.4}, k(KnobPin, 4)); q.Mode != modeStuck {
		t.Errorf("in a breeze on a thick pin it %s", q.Mode)
	}
	// Falling, it is seen from above: the other sense than from the breath.
	if a, b := base.Drawing.Data.(*WheelDrawing), at(motion.Conditions{"drive": byFall}, nil).Drawing.Data.(*WheelDrawing); a.Sense == b.Sense || a.Breath != b.Breath || a.Turning*b.Turning >= 0 {
		t.Errorf("blown %s at %v, falling %s at %v", a.Sense, a.Turning, b.Sense, b.Turning)
	}
}

// Scale laws: twice the size of the same paper and blades falls alike and turns half as fast
// once it has settled; four times the paper falls twice as fast.
func TestScale(t *testing.T) {
	p := pattern(t, "seaaster")
	small, large := on(t, p, 120, 120, 80), on(t, p, 240, 240, 80)
	a, err1 := bench(t, small, nil).at(t.Context(), map[string]float64{"rim": 20})
	b, err2 := bench(t, large, nil).at(t.Context(), map[string]float64{"rim": 40})
	heavy, err3 := bench(t, on(t, p, 120, 120, 160), nil).at(t.Context(), map[string]float64{"rim": 20})
	if err1 != nil || err2 != nil || err3 != nil {
		t.Fatal(err1, err2, err3)
	}
	tips, thrust := a.wheel.Free()
	tips2, thrust2 := b.wheel.Free()
	near(t, "tips over wind", tips2, tips, 0.02)
	near(t, "thrust", thrust2, thrust, 0.02)
	u, rate := a.wheel.Falls()
	u2, rate2 := b.wheel.Falls()
	u3, _ := heavy.wheel.Falls()
	near(t, "fall of the large one", u2, u, 0.02)
	near(t, "turns of the large one", rate2, rate/2, 0.02)
	near(t, "fall of the heavy one", u3, u*math.Sqrt2, 1e-6)
}

// Counts that differ make it uneven, by the law of spacing; moves that are advised even it
// out, and the wheel says so at every step.
func TestCountsThroughTheBench(t *testing.T) {
	w := bench(t, on(t, pattern(t, "seaaster"), 150, 150, 80), nil)
	knobs := map[string]float64{}
	counted := map[string]float64{KnobGap(0): 3.5, KnobGap(1): 5, KnobGap(2): 5.5, KnobGap(3): 6, KnobGap(4): 5}
	if err := w.Take(knobs, counted); err != nil {
		t.Fatal(err)
	}
	moves := 0
	last := math.Inf(1)
	for {
		p, err := w.Predict(t.Context(), knobs, nil)
		if err != nil {
			t.Fatal(err)
		}
		d := p.Drawing.Data.(*WheelDrawing)
		if d.Mean != 5 || d.Spread > last+1e-9 {
			t.Fatalf("after %d moves mean %v, spread %v after %v", moves, d.Mean, d.Spread, last)
		}
		last = d.Spread
		for _, c := range p.Checks {
			if c.ID == "even" && c.OK != (len(d.Moves) == 0) {
				t.Errorf("%+v with %d moves left", c, len(d.Moves))
			}
		}
		if len(d.Moves) == 0 {
			break
		}
		if moves == 0 && d.UnevenGMM <= 0.1 {
			t.Errorf("uneven by %v g mm", d.UnevenGMM)
		}
		next := map[string]float64{}
		for i, g := range d.Moves[0].Gaps {
			next[KnobGap(i)] = g
		}
		if err := w.Take(knobs, next); err != nil {
			t.Fatal(err)
		}
		if moves++; moves > 4 {
			t.Fatal("more moves than blades less one")
		}
	}
	if last > 0.26 {
		t.Errorf("ends with a spread of %v", last)
	}
	if err := w.Take(knobs, map[string]float64{KnobGap(0): 4}); err == nil || !strings.Contains(err.Error(), "gap_2") {
		t.Errorf("one gap alone: %v", err)
	}
	zero := map[string]float64{}
	for i := range 5 {
		zero[KnobGap(i)] = 0
	}
	if err := w.Take(knobs, zero); err == nil {
		t.Error("no folds at all are taken")
	}
}

// Trials made with a harder breath and a thicker air are learnt from, with their doubt.
func TestLearning(t *testing.T) {
	s := on(t, pattern(t, "seaaster"), 150, 150, 80)
	r := rand.New(rand.NewPCG(5, 8))
	blown, dropped := bench(t, s, nil), bench(t, s, motion.Conditions{"drive": byFall, "up": tipFirst})
	q, err := blown.at(t.Context(), nil)
	if err != nil {
		t.Fatal(err)
	}
	const hard, thick = 1.4, 1.25
	b := blown.breath
	b.Aim, b.Speed = blown.aim(q.wheel), b.Speed*hard
	rate, _ := q.wheel.Turns(b, q.pin)
	f, _ := dropped.at(t.Context(), nil)
	path := f.wheel.Polar().Drop(2, f.inertia(), thick)
	var logs, falls []motion.Noted
	for range 20 {
		logs = append(logs, motion.Noted{Kind: blow, Read: map[string]float64{Rate: perTurn(rate) * math.Exp(0.08*r.NormFloat64())}})
		falls = append(falls, motion.Noted{Kind: drop, Read: map[string]float64{Fall: path[len(path)-1].T * math.Exp(0.02*r.NormFloat64()), Height: 2}})
	}
	got := learn([]motion.Observation{{Trying: blown, Log: logs, Build: 1}, {Trying: dropped, Log: falls, Build: 1}})
	near(t, "how hard they blow", got.Factor, hard, 0.08)
	if got.Trials != 20 || got.Spread >= breathDoubt || len(got.Also) != 1 {
		t.Fatalf("%+v", got)
	}
	near(t, "what holds it up", got.Also[0].Factor, thick, 0.12)
	// It is used: the band narrows about the measured rate, and the fall takes longer.
	blown.Own, dropped.Own = got, got
	a, _ := blown.Outlook(t.Context(), nil)
	near(t, "rate after learning", a.Middle, perTurn(rate), 0.1)
	before, _ := bench(t, s, motion.Conditions{"drive": byFall, "up": tipFirst}).Outlook(t.Context(), nil)
	after, _ := dropped.Outlook(t.Context(), nil)
	if after.Middle <= before.Middle || after.Hi-after.Lo >= before.Hi-before.Lo {
		t.Errorf("falls in %v to %v s, before %v to %v", after.Lo, after.Hi, before.Lo, before.Hi)
	}
	// Flashes and counted turns tell the same rate.
	for _, n := range []motion.Noted{{Read: map[string]float64{Flashes: 30}}, {Read: map[string]float64{Turns: 60, Seconds: 10}}} {
		if v, ok := blown.rateOf(n, 5); !ok || math.Abs(v-6) > 1e-9 {
			t.Errorf("%v turns a second of %+v", v, n)
		}
	}
	if c := learn(nil); c.Trials != 0 || c.Factor != 0 {
		t.Errorf("out of nothing: %+v", c)
	}
}

// Every symptom has causes with their law, and a remedy that does not make it worse; what
// knobs can mend is mended by it.
func TestClinic(t *testing.T) {
	s := on(t, pattern(t, "seaaster"), 150, 150, 80)
	for _, symptom := range symptoms {
		c := motion.Conditions{}
		knobs := map[string]float64{}
		kind := blow
		switch symptom {
		case stuck:
			knobs[KnobPin], c["breath"] = 4, 0
		case wobbled, unevenly, stopped, rattled:
			knobs[KnobGap(0)], knobs[KnobGap(1)] = 3, 7
		case slow:
			knobs[KnobAngle], knobs[KnobPin] = 70, 2
		case tumbled, fast:
			kind, c["drive"] = drop, byFall
			knobs[KnobAngle] = 50
		}
		w := bench(t, s, c)
		log := make([]motion.Noted, 4)
		for i := range log {
			log[i] = motion.Noted{Kind: kind, Chips: []string{symptom}, Read: map[string]float64{}}
		}
		f, err := w.Examine(t.Context(), knobs, log)
		if err != nil {
			t.Fatal(err)
		}
		if f.Symptom != symptom || len(f.Causes) == 0 || f.Remedy == nil || f.Title == "" {
			t.Errorf("%s: %+v", symptom, f)
			continue
		}
		sum := 0.0
		for _, q := range f.Causes {
			sum += q.Weight
			if q.Law == "" {
				t.Errorf("%s: %q has no law", symptom, q.Words)
			}
		}
		near(t, "shares of "+symptom, sum, 1, 1e-9)
		for _, r := range append([]motion.Remedy{*f.Remedy}, f.Others...) {
			if len(r.Changes) == 0 || r.Now == nil || r.After == nil {
				continue
			}
			worse := r.After.Middle < 0.95*r.Now.Middle
			if worse && symptom != stuck { // what starts more easily turns more slowly
				t.Errorf("%s: %s goes from %v to %v", symptom, r.Do, r.Now.Middle, r.After.Middle)
			}
		}
		if symptom == stuck {
			mended := map[string]float64{}
			for k, v := range knobs {
				mended[k] = v
			}
			for _, q := range f.Remedy.Changes {
				mended[q.Knob] = q.To
			}
			before, _ := w.at(t.Context(), knobs)
			after, _ := w.at(t.Context(), mended)
			was, is := w.spread(before, byBreath, motion.Whole), w.spread(after, byBreath, motion.Whole)
			if is.modes[modeStuck] >= was.modes[modeStuck] {
				t.Errorf("it does not start in %d of 200, before %d", is.modes[modeStuck], was.modes[modeStuck])
			}
		}
	}
	// Few trials and good ones ask for nothing.
	w := bench(t, s, nil)
	if f, err := w.Examine(t.Context(), nil, nil); err != nil || f.Wants != 3 {
		t.Errorf("%+v, %v", f, err)
	}
	good := make([]motion.Noted, 5)
	for i := range good {
		good[i] = motion.Noted{Kind: blow, Chips: []string{steady}}
	}
	if f, err := w.Examine(t.Context(), nil, good); err != nil || !f.Clear || f.Remedy != nil {
		t.Errorf("%+v, %v", f, err)
	}
}

// Aids stand at the steps that they help with, and follow the number of blades and the hand.
func TestAids(t *testing.T) {
	p := pattern(t, "seaaster")
	s := on(t, p, 150, 150, 80)
	for n := 3; n <= 8; n++ {
		for _, hand := range []float64{1, -1} {
			r := p.Run(s.Sheet, map[string]float64{"n": float64(n), "hand": hand})
			kinds := map[string]int{}
			bow := 0
			for no, a := range aids(r) {
				kinds[a.Kind]++
				switch a.Kind {
				case "rays":
					for i, item := range a.Items {
						if want := []string{"ridge", "valley"}[i%2]; item.Want != want {
							t.Errorf("crease %d of %d is a %s", i+1, n, item.Want)
						}
					}
					if len(a.Items) != 2*n {
						t.Errorf("%d creases for %d blades", len(a.Items), n)
					}
				case "list":
					if len(a.Items) != 14 || !strings.Contains(a.Items[0].Says, fmt.Sprintf("%d layers", 2*n)) {
						t.Errorf("%d blades: %d creases to press again, %q", n, len(a.Items), a.Items[0].Says)
					}
				case "curve":
					bow++
					pts := a.Lines[0].Points
					if y := -pts[len(pts)-1]; y <= 0 && no > 11 {
						t.Errorf("step %d: the curve ends at %v", no, y)
					}
				case "hands":
					if a.Clock != int(hand) {
						t.Errorf("hand %v twists %d", hand, a.Clock)
					}
				}
			}
			if kinds["rays"] != 1 || kinds["list"] != 1 || kinds["hands"] != 1 || kinds["curve"] != 7 {
				t.Errorf("%v", kinds)
			}
		}
	}
	if a := sheet.CreaseDrift(10, 0.1); math.Abs(a-9*math.Pi*0.1/4) > 1e-12 {
		t.Errorf("ten layers drift by %v", a)
	}
}

// The grid has four ways, with what was logged in its place; other numbers of blades are told
// from the same sheet.
func TestTold(t *testing.T) {
	w := bench(t, on(t, pattern(t, "seaaster"), 150, 150, 80), nil)
	log := []motion.Noted{{Kind: drop, Read: map[string]float64{Fall: 1.1}, Under: map[string]string{"up": "the tip"}}, {Kind: drop, Read: map[string]float64{Fall: 1.3}, Under: map[string]string{"up": "the tip"}}}
	d, err := w.Told(t.Context(), nil, log)
	if err != nil {
		t.Fatal(err)
	}
	told := d.Data.(*WheelsDrawing)
	if len(told.Grid) != 4 || len(told.Of) != 6 {
		t.Fatalf("%d ways, %d numbers of blades", len(told.Grid), len(told.Of))
	}
	for _, c := range told.Grid {
		if tried := c.Kind == drop && c.Up == "the tip"; (c.Tries == 2) != tried || tried && math.Abs(c.Measured-1.2) > 1e-9 {
			t.Errorf("%+v", c)
		}
	}
	for i, o := range told.Of {
		if o.Blades != i+3 || o.Layers != 2*(i+3) || o.Here != (o.Blades == 5) || math.Abs(o.Apart-360/float64(o.Blades)) > 0.01 {
			t.Errorf("%+v", o)
		}
	}
}

// A search over four knobs finds what is better, by hundreds of tries; the times are those of
// the benchmarks.
func TestSearch(t *testing.T) {
	w := bench(t, on(t, pattern(t, "seaaster"), 150, 150, 80), nil)
	for aim, gains := range map[string]string{"fastest": byBlown, "start": byStart, "slowest": byMetre} {
		got := found(t, w, aim, gains)
		if got.NothingToGain || got.After[gains] <= 1.02*got.Before[gains] {
			t.Errorf("%s: from %v to %v", aim, got.Before[gains], got.After[gains])
		}
		at := map[string]float64{}
		for i, l := range w.Levers(nil) {
			at[l.Name] = got.At[i]
		}
		if aim == "start" && (at[KnobAngle] < 35 || at[KnobAngle] > 85) || aim == "fastest" && at[KnobAngle] > 30 {
			t.Errorf("%s: blades at %v°", aim, at[KnobAngle])
		}
	}
}

func found(t testing.TB, w *Workbench, aim, gains string) tune.Found {
	t.Helper()
	levers := w.Levers(nil)
	var free []int
	for i, l := range levers {
		if l.Name == KnobAngle || l.Name == KnobPin || l.Name == KnobTape || l.Name == KnobOddBy {
			free = append(free, i)
		}
	}
	if len(free) != 4 {
		t.Fatalf("%d of four knobs", len(free))
	}
	got, err := tune.Optimise(t.Context(), levers, free, w.Measure(levers), w.Goal(aim, 0), w.way.Gauge(gains), 200, func(tune.Progress) {})
	if err != nil {
		t.Fatal(err)
	}
	return got
}

// The bar is a second.
func BenchmarkSearchFourKnobs(b *testing.B) {
	w := bench(b, on(b, pattern(b, "seaaster"), 150, 150, 80), nil)
	b.ReportAllocs()
	for b.Loop() {
		found(b, w, "fastest", byBlown)
	}
}

func BenchmarkPredict(b *testing.B) {
	w := bench(b, on(b, pattern(b, "seaaster"), 150, 150, 80), nil)
	b.ReportAllocs()
	i := 0
	for b.Loop() {
		i++
		if _, err := w.Predict(b.Context(), map[string]float64{KnobAngle: 20 + float64(i%30)}, nil); err != nil {
			b.Fatal(err)
		}
	}
}
