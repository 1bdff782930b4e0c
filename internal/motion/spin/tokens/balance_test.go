package tokens

import (
	"fmt"
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"tussock/internal/body"
	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/motion"
	"tussock/internal/motion/motiontest"
	"tussock/internal/sequence"
	"tussock/internal/sequence/operations"
	"tussock/internal/sheet"
)

// centroid weighs a replay a second way: every facet as a fan of triangles on the sheet,
// carried to where it lies flat, with what is fixed to it.
func centroid(r *sequence.Replay) geom.Vec {
	s := r.Final()
	var sum geom.Vec
	total := 0.0
	for i := range s.F {
		p := s.Folded(fold.FacetID(i))
		for k := 1; k+1 < len(p); k++ {
			m := math.Abs(p[k].Sub(p[0]).Cross(p[k+1].Sub(p[0]))) / 2 * r.Sheet.GSM * 1e-6
			sum = sum.Add(p[0].Add(p[k]).Add(p[k+1]).Scale(m / 3))
			total += m
		}
	}
	for _, m := range r.Masses {
		if at, ok := sequence.Place(s, m.At); ok {
			sum, total = sum.Add(at.Scale(m.G)), total+m.G
		}
	}
	return sum.Scale(1 / total)
}

// random is a toy of random folds, with tape and a clip, whose corner is brought to its
// balance.
func random(r *rand.Rand) string {
	var b strings.Builder
	fmt.Fprintf(&b, "moves spin\nstands TR\nsheet square 120\n")
	at := func() string { return fmt.Sprintf("sheet(%.1f,%.1f)", 20+80*r.Float64(), 20+80*r.Float64()) }
	for i, c := range []string{"BL", "TL", "BR"} {
		if r.Float64() < 0.75 {
			fmt.Fprintf(&b, "valley bring %s to sheet(%.1f,%.1f) as f%d\n", c, 45+30*r.Float64(), 45+30*r.Float64(), i)
		}
	}
	if r.Float64() < 0.6 {
		fmt.Fprintf(&b, "tape %s size 12 8 mass %.2f\n", at(), 0.05+0.2*r.Float64())
	}
	if r.Float64() < 0.6 {
		fmt.Fprintf(&b, "clip %s mass %.2f\n", at(), 0.1+0.4*r.Float64())
	}
	fmt.Fprintf(&b, "valley bring TR to balance layers top 1 at TR as tip\nopen along tip moving TR angle 180\n")
	return b.String()
}

// On two hundred random toys the point that is brought to the balance lies on it, by a
// centroid that is summed apart, to a twentieth of a millimetre.
func TestTheSolvedPointLiesOnTheBalance(t *testing.T) {
	r := rand.New(rand.NewPCG(19, 4))
	l := operations.Language(language)
	l.Stands = body.Balance
	done, worst := 0, 0.0
	for try := 0; done < 200 && try < 1000; try++ {
		p, err := l.Parse("random", random(r))
		if err != nil {
			t.Fatal(err)
		}
		sh, err := sheet.New(120, 120, 80, 0.1)
		if err != nil {
			t.Fatal(err)
		}
		out := p.Run(sh, nil)
		if e := fold.As(out.Err); out.Err != nil && e.Step > 0 && e.Step <= len(p.Steps)-2 {
			continue // random folds that no paper makes
		}
		if len(out.Steps) < len(p.Steps)-1 {
			continue
		}
		at, ok := sequence.Place(out.Final(), out.Landmarks["TR"])
		if !ok {
			t.Fatal("the point is gone")
		}
		worst = math.Max(worst, at.Dist(centroid(out)))
		done++
	}
	t.Logf("%d toys, worst %.2g mm", done, worst)
	if done < 200 || worst > 0.05 {
		t.Errorf("%d toys, the worst point lies %v mm off", done, worst)
	}
}

func bench(t testing.TB, id string, i int, w, h float64, c motion.Conditions) *Workbench {
	t.Helper()
	way := Ways()[i]
	way.Complete()
	full, err := way.Full(c)
	if err != nil {
		t.Fatal(err)
	}
	sh, err := sheet.New(w, h, 80, 0.1)
	if err != nil {
		t.Fatal(err)
	}
	return motion.Inner(way.On(motiontest.Pattern(t, id, language), sh).Under(full, motion.Calibration{})).(*Workbench)
}

// The clinic finds a weight of 2 % of the mass that nobody knows of, and on which side it
// sits, from three leans that are each tapped with 10° of scatter and read with a tenth of
// it. The toys, the place of the weight along the rim and the readings are drawn anew each
// time.
func TestTheClinicFindsAHiddenWeight(t *testing.T) {
	w := bench(t, "tidegauge", 1, 210, 297, nil)
	s, err := w.at(t.Context(), nil)
	if err != nil {
		t.Fatal(err)
	}
	r := rand.New(rand.NewPCG(7, 19))
	const cases = 400
	found, calm := 0, 0
	for range cases {
		// A weight at the rim, anywhere round it at least half as far out as it reaches.
		spot := s.Rim[r.IntN(len(s.Rim))].At.Scale(0.8 + 0.2*r.Float64())
		off := spot.Scale(0.02 / 1.02).Add(s.Off.Scale(1 / 1.02))
		if spot.Len() < s.RadiusMM/2 {
			continue
		}
		f, err := w.Examine(t.Context(), nil, leanings(r, s, off))
		if err != nil {
			t.Fatal(err)
		}
		side := oClock(clock(spot))
		near := func(words string) bool {
			for _, by := range []float64{-30, 0, 30} { // to an hour
				a := geom.Rad(by)
				turned := geom.Vec{X: spot.X*math.Cos(a) - spot.Y*math.Sin(a), Y: spot.X*math.Sin(a) + spot.Y*math.Cos(a)}
				if strings.Contains(words, "towards "+oClock(clock(turned))) {
					return true
				}
			}
			return false
		}
		if len(f.Causes) > 0 && strings.HasPrefix(f.Causes[0].Words, "Weight uneven") && near(f.Causes[0].Words) {
			found++
		} else {
			t.Logf("at %s: %+v", side, f.Title)
		}
		// With nothing hidden it is not made up.
		f, err = w.Examine(t.Context(), nil, leanings(r, s, s.Off.Add(geom.Vec{X: 0.05, Y: 0.05})))
		if err != nil {
			t.Fatal(err)
		}
		if len(f.Causes) == 0 || !strings.HasPrefix(f.Causes[0].Words, "Weight uneven") {
			calm++
		}
	}
	t.Logf("found %d of %d, quiet where nothing is hidden in %d", found, cases, calm)
	if found < cases*95/100 || calm < cases*80/100 {
		t.Errorf("found %d of %d, quiet in %d", found, cases, calm)
	}
}

// leanings are three leans of a toy whose weight lies so far beside its pin.
func leanings(r *rand.Rand, s set, off geom.Vec) []motion.Noted {
	var log []motion.Noted
	deg := geom.Deg(math.Atan2(off.Len(), s.DepthMM))
	for range 3 {
		h := math.Mod(clock(off)+10.0/30*r.NormFloat64()+12, 12)
		n := motion.Noted{Kind: "lean", Read: map[string]float64{Lean: math.Max(0, deg*(1+0.1*r.NormFloat64())), Towards: h}}
		if deg > levelDeg {
			n.Chips = []string{leaned}
		} else {
			n.Chips = []string{level}
		}
		log = append(log, n)
	}
	return log
}

// What a fold made off its place does to the balance, to first order, is what folding it so
// does: a lobe is moved by its knob and the whole toy weighed anew.
func TestFoldsMoveTheBalance(t *testing.T) {
	w := bench(t, "cockle", 0, 150, 150, nil)
	s, err := w.at(t.Context(), map[string]float64{"shell": 0})
	if err != nil {
		t.Fatal(err)
	}
	if len(s.folds()) < 4 {
		t.Fatalf("%d folds move the balance", len(s.folds()))
	}
	for _, f := range s.folds() {
		if f.perMM.Len() > 1.5 || f.perMM.Len() < leastEffect {
			t.Errorf("step %d moves it by %v mm for each mm", f.step, f.perMM.Len())
		}
	}
	// A remedy by a fold leaves less than there was, and none is proposed that does not.
	for _, a := range s.answers(geom.Vec{X: 0.6, Y: -0.8}) {
		if a.left.Len() >= 0.7 || math.Abs(a.mm) > mostFoldMM {
			t.Errorf("step %d by %v mm leaves %v", a.step, a.mm, a.left.Len())
		}
	}
}

// Both shipped tokens balance on their own sheet and on two others, and their numbers move
// as they must.
func TestShippedTokensBalance(t *testing.T) {
	for _, c := range []struct {
		id  string
		way int
		on  [][2]float64
	}{{"cockle", 0, [][2]float64{{150, 150}, {100, 100}, {210, 210}}}, {"tidegauge", 1, [][2]float64{{215.9, 279.4}, {210, 297}, {148, 210}}}} {
		var masses []float64
		for _, z := range c.on {
			w := bench(t, c.id, c.way, z[0], z[1], nil)
			s, err := w.at(t.Context(), nil)
			if err != nil {
				t.Fatalf("%s on %v: %v", c.id, z, err)
			}
			if s.Off.Len() > 0.1 {
				t.Errorf("%s on %v: %.3f mm off", c.id, z, s.Off.Len())
			}
			masses = append(masses, s.MassG)
			if s.Hangs && s.DepthMM < 2 || !s.Hangs && math.Abs(s.PointMM-5) > 0.2 {
				t.Errorf("%s on %v: %.2f mm deep, point %.2f mm", c.id, z, s.DepthMM, s.PointMM)
			}
		}
		if masses[0] <= masses[len(masses)-1] == (c.id == "tidegauge") {
			t.Errorf("%s: masses %v", c.id, masses)
		}
	}
}

// Trends with sign and order: a point off the balance leans more and spins less, a higher
// point stands only faster and clears more, edges that stand up shorten the spin, and the
// pin token leans by the arctangent of offset over depth.
func TestTrends(t *testing.T) {
	w := bench(t, "cockle", 0, 150, 150, nil)
	look := func(k map[string]float64) (set, spins) {
		s, err := w.at(t.Context(), k)
		if err != nil {
			t.Fatal(err)
		}
		return s, w.spread(s)
	}
	_, good := look(nil)
	_, beside := look(map[string]float64{KnobRight: 2})
	if beside.leanDeg.Middle <= good.leanDeg.Middle || beside.seconds.Middle >= good.seconds.Middle {
		t.Errorf("leans %v then %v, spins %v then %v", good.leanDeg.Middle, beside.leanDeg.Middle, good.seconds.Middle, beside.seconds.Middle)
	}
	_, fanned := look(map[string]float64{KnobEdges: 2})
	_, pressed := look(map[string]float64{KnobEdges: 0})
	if !(fanned.seconds.Middle < good.seconds.Middle && good.seconds.Middle < pressed.seconds.Middle) {
		t.Errorf("spins %v fanned, %v, %v pressed", fanned.seconds.Middle, good.seconds.Middle, pressed.seconds.Middle)
	}
	low, _ := look(map[string]float64{"high": 4})
	tall, _ := look(map[string]float64{"high": 7})
	if low.body().Stands() >= tall.body().Stands() || low.PointMM >= tall.PointMM {
		t.Errorf("stands from %v low, %v high", low.body().Stands(), tall.body().Stands())
	}
	// Bending the rim up at a spot raises that spot by as much, and nothing else.
	bent, _ := look(map[string]float64{bendKnob(0): 4})
	flat, _ := look(nil)
	for i := range flat.Rim {
		up := bent.rim(0)[i].Z - flat.rim(0)[i].Z
		if want := map[bool]float64{true: 4}[flat.Rim[i].Knob == bendKnob(0)]; math.Abs(up-want) > 1e-9 {
			t.Errorf("spot %d is %v mm higher", i, up)
		}
	}
	hang := bench(t, "tidegauge", 1, 210, 297, nil)
	s, err := hang.at(t.Context(), map[string]float64{KnobUp: 1})
	if err != nil {
		t.Fatal(err)
	}
	q := hang.spin(s, s.Off, hang.slowing(s), 10, 0)
	if want := math.Atan(s.Off.Len() / s.DepthMM); math.Abs(q.lean-want) > 1e-12 || math.Abs(clock(s.Off)-6) > 0.05 {
		t.Errorf("leans %v towards %v, want %v", q.lean, clock(s.Off), want)
	}
	flatter, err := hang.at(t.Context(), map[string]float64{"book": 10})
	if err != nil {
		t.Fatal(err)
	}
	if flatter.DepthMM >= s.DepthMM {
		t.Errorf("%v mm deep with its halves nearly flat, %v mm drooped", flatter.DepthMM, s.DepthMM)
	}
}

// What was found on a pencil is used from then on, and taken back to where it is computed by
// measuring just that.
func TestABalanceThatWasFound(t *testing.T) {
	w := bench(t, "cockle", 0, 150, 150, nil)
	knobs := map[string]float64{}
	if err := w.Take(knobs, map[string]float64{"right": 1.5, "up": -0.5}); err != nil {
		t.Fatal(err)
	}
	s, err := w.at(t.Context(), knobs)
	if err != nil {
		t.Fatal(err)
	}
	if math.Abs(s.Off.X-1.5) > 0.06 || math.Abs(s.Off.Y+0.5) > 0.06 {
		t.Errorf("found 1.5 to the right and 0.5 down, set %v", s.Off)
	}
	v, err := w.Predict(t.Context(), knobs, nil)
	if err != nil || !strings.Contains(v.Readings[0].Says, "Found") {
		t.Errorf("%v, %v", v.Readings[0].Says, err)
	}
	if err := w.Take(knobs, map[string]float64{"right": 28}); err == nil || !strings.Contains(err.Error(), "15 mm") {
		t.Errorf("28 mm: %v", err)
	}
	// The proposed fix brings the point under it.
	for _, c := range v.Checks[0].Fix {
		knobs[c.Knob] = c.To
	}
	if s, _ = w.at(t.Context(), knobs); s.Off.Len() > 0.08 {
		t.Errorf("%v mm left after the fix", s.Off.Len())
	}
}

func BenchmarkPredict(b *testing.B) {
	for _, c := range []struct {
		id   string
		way  int
		w, h float64
	}{{"cockle", 0, 150, 150}, {"tidegauge", 1, 210, 297}} {
		b.Run(c.id, func(b *testing.B) {
			w := bench(b, c.id, c.way, c.w, c.h, nil)
			for i := 0; b.Loop(); i++ {
				if _, err := w.Predict(b.Context(), map[string]float64{KnobRight: float64(i%20) / 10}, nil); err != nil {
					b.Fatal(err)
				}
			}
		})
	}
}
