package hop

import (
	"context"
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"tussock/internal/motion"
	"tussock/internal/motion/toys"
	"tussock/internal/tune"
)

func bench(t testing.TB, id string, scale float64, c motion.Conditions) *Workbench {
	t.Helper()
	p := pattern(t, id)
	return trying(t, p, on(p, scale), c)
}

func noted(n int, chips ...string) []motion.Noted {
	out := make([]motion.Noted, n)
	for i := range out {
		out[i].Chips = chips
	}
	return out
}

func examine(t *testing.T, w *Workbench, knobs map[string]float64, log []motion.Noted) motion.Finding {
	t.Helper()
	f, err := w.Examine(t.Context(), knobs, log)
	if err != nil {
		t.Fatal(err)
	}
	return f
}

// Nothing is concluded from one hop, from none noted, or from a fault seen now and then.
func TestNoFindingFromOneHop(t *testing.T) {
	w := bench(t, "sandhopper", 1, nil)
	if f := examine(t, w, nil, noted(1, hardly)); f.Remedy != nil || f.Wants != 2 {
		t.Errorf("%+v", f)
	}
	if f := examine(t, w, nil, noted(5)); f.Remedy != nil || f.Clear {
		t.Errorf("%+v", f)
	}
	if f := examine(t, w, nil, append(noted(1, shut), noted(4, onFeet)...)); f.Remedy != nil || !f.Clear {
		t.Errorf("%+v", f)
	}
}

// Every fault gets causes whose shares sum to one and a remedy that does what it is for,
// by the model.
func TestRemediesHelp(t *testing.T) {
	w := bench(t, "mudskipper", 0.8, nil)
	hard := map[string]float64{KnobHipRadius: 0.1, KnobCatchRadius: 0.1}
	late := map[string]float64{"last": 0.47}
	high := func(k map[string]float64) float64 { return mean(t, w, k, func(a Arc) float64 { return a.HeightM }) }
	long := func(k map[string]float64) float64 { return mean(t, w, k, far) }
	turn := func(k map[string]float64) float64 {
		return mean(t, w, k, func(a Arc) float64 { return a.HalfFlips })
	}
	for _, q := range []struct {
		fault  string
		knobs  map[string]float64
		better func(before, after map[string]float64) bool
	}{
		{hardly, hard, func(b, a map[string]float64) bool { return high(a) > 1.4*high(b) }},
		{shut, hard, func(b, a map[string]float64) bool { return high(a) > 1.4*high(b) }},
		{caught, late, func(b, a map[string]float64) bool { return long(a) > 1.2*long(b) }},
		{straightUp, nil, func(b, a map[string]float64) bool { return long(a) > long(b) }},
		{tooMany, nil, func(b, a map[string]float64) bool { return turn(a) < turn(b) }},
		{tired, hard, func(b, a map[string]float64) bool { return high(a) > high(b) }},
		{footUnder, map[string]float64{"last": 0.62}, func(b, a map[string]float64) bool {
			g, err := w.Toy(a)
			return err == nil && math.Abs(g.FootMM-g.MiddleMM-wantedOverhangMM) < 0.2
		}},
	} {
		f := examine(t, w, q.knobs, noted(4, q.fault))
		if f.Remedy == nil || f.Symptom != q.fault || f.Seen != 4 || len(f.Causes) == 0 {
			t.Errorf("%s: %+v", q.fault, f)
			continue
		}
		if q.fault == straightUp { // the table goes first, and its outlook says so
			if f.Remedy.School != "the table" || f.Remedy.After.Middle <= f.Remedy.Now.Middle || len(f.Others) == 0 {
				t.Errorf("%+v", f.Remedy)
			}
			f.Remedy = &f.Others[0]
		}
		if !q.better(q.knobs, toys.With(q.knobs, f.Remedy.Changes...)) {
			t.Errorf("%s: %s does not help", q.fault, f.Remedy.Do)
		}
		share := 0.0
		for i, c := range f.Causes {
			share += c.Weight
			if i > 0 && c.Weight > f.Causes[i-1].Weight {
				t.Errorf("%s: causes are not in order", q.fault)
			}
		}
		if share > 1+1e-9 || share < 0.5 || f.Remedy.Against == "" || f.Remedy.Where == "" {
			t.Errorf("%s: shares sum to %v; %+v", q.fault, share, f.Remedy)
		}
	}
}

func mean(t *testing.T, w *Workbench, knobs map[string]float64, of func(Arc) float64) float64 {
	t.Helper()
	e := examination{w: w}
	return e.middle(knobs, of)
}

// The fold is moved by half of what the overhang shifts.
func TestOverhangRule(t *testing.T) {
	w := bench(t, "natterjack", 1, nil)
	late := map[string]float64{"last": 0.47}
	g, err := w.Toy(late)
	if err != nil {
		t.Fatal(err)
	}
	over := g.FootMM - g.MiddleMM
	c, ok := w.toOverhang(late, wantedOverhangMM)
	if over <= 0 || !ok {
		t.Fatalf("overhang %v, %v", over, ok)
	}
	after, err := w.Toy(toys.With(late, c))
	if err != nil {
		t.Fatal(err)
	}
	if o := after.FootMM - after.MiddleMM; math.Abs(o-wantedOverhangMM) > 0.05 {
		t.Errorf("overhang %v afterwards", o)
	}
	if by := after.MiddleMM - g.MiddleMM; math.Abs(by-(over-wantedOverhangMM)/2) > 0.05 {
		t.Errorf("the fold moves by %v, the overhang by %v", by, over-wantedOverhangMM)
	}
	if err := w.Take(late, map[string]float64{"overhang": -3, "opening": 70, "nose_up": 5}); err != nil || late[KnobOpening] != 70 || late[KnobNoseUp] != 5 {
		t.Errorf("%v: %v", late, err)
	}
	if err := w.Take(late, map[string]float64{"overhang": 20}); err == nil || !strings.Contains(err.Error(), "reach") {
		t.Errorf("an overhang that no knob reaches: %v", err)
	}
}

// Seen against predicted: most hops the other way are a finding; half of them are not.
func TestWrongWayIsAFinding(t *testing.T) {
	for id, against := range map[string]string{"sandhopper": backward, "backswimmer": forward} {
		with := forward
		if against == forward {
			with = backward
		}
		w := bench(t, id, 1, nil)
		f := examine(t, w, nil, append(noted(3, against), noted(1, with)...))
		if f.Symptom != against || f.Confidence != motion.Unsure || f.Remedy == nil || len(f.Causes) != 2 {
			t.Errorf("%s: %+v", id, f)
		}
		if f := examine(t, w, nil, append(noted(2, against), noted(2, with)...)); f.Symptom == against {
			t.Errorf("%s: %+v", id, f)
		}
		if f := examine(t, w, nil, noted(4, with)); f.Remedy != nil {
			t.Errorf("%s: %+v", id, f)
		}
	}
}

// Hops drawn from a toy whose energy is 1.8 times the model's are learnt from: the number
// is found within its own doubt, bands get narrower, and less than three hops, hops off a
// table or somebody else's toys teach nothing.
func TestCalibration(t *testing.T) {
	const truth = 1.8
	r := rand.New(rand.NewPCG(7, 9))
	var all []motion.Observation
	for i, id := range []string{"sandhopper", "mudskipper", "natterjack"} {
		w := bench(t, id, 0.8, nil)
		toy, _, set, err := w.toyAt(nil)
		if err != nil {
			t.Fatal(err)
		}
		o := motion.Observation{Trying: w, Build: int64(i)}
		for range 10 {
			tr := w.trial(set)
			tr.Energy = truth * math.Exp(0.3*r.NormFloat64())
			o.Log = append(o.Log, motion.Noted{Read: map[string]float64{Length: math.Abs(toy.Leap(tr).LengthM)}})
		}
		all = append(all, o)
	}
	few := Learn(all[:1])
	c := Learn(all)
	if c.Trials != 30 || c.Builds != 3 || math.Abs(math.Log(c.Factor/truth)) > 2*c.Spread {
		t.Errorf("%+v", c)
	}
	if !(c.Spread < few.Spread && few.Spread < doubt) {
		t.Errorf("doubt %v, after one toy %v, after three %v", doubt, few.Spread, c.Spread)
	}
	p := pattern(t, "sandhopper")
	full, err := way.Full(nil)
	if err != nil {
		t.Fatal(err)
	}
	before, _ := bench(t, "sandhopper", 0.8, nil).Outlook(t.Context(), nil)
	after, _ := NewShapes(p, on(p, 0.8)).Under(full, c).Outlook(t.Context(), nil)
	if after.Middle <= before.Middle || after.Hi/after.Lo >= before.Hi/before.Lo {
		t.Errorf("before %+v, learnt %+v", before, after)
	}
	short := all[0]
	short.Log = short.Log[:2]
	dropped := all[1]
	dropped.Log = []motion.Noted{{Read: map[string]float64{Dropped: 0.5}}, {Read: map[string]float64{Dropped: 0.6}}, {Read: map[string]float64{Dropped: 0.4}}}
	if c := Learn([]motion.Observation{short, dropped}); c.Factor != 0 || c.Trials != 0 {
		t.Errorf("%+v", c)
	}
}

// Grain across the pleat springs more than along it, and a rougher table leans the leap
// forward.
func TestGrainAndTable(t *testing.T) {
	w := bench(t, "mudskipper", 0.6, nil)
	high := func(deg float64) float64 { return mean(t, w, map[string]float64{KnobGrain: deg}, high) }
	if up := high(90)/high(0) - 1; up < 0.3 || up > 1.5 {
		t.Errorf("grain across goes %.0f %% higher than along", 100*up)
	}
	slick, cloth := bench(t, "mudskipper", 0.6, motion.Conditions{"surface": 1}), bench(t, "mudskipper", 0.6, motion.Conditions{"surface": 2})
	if a, b := mean(t, slick, nil, far), mean(t, cloth, nil, far); b < 1.2*a {
		t.Errorf("%v m on glass, %v on cloth", a, b)
	}
}

// A ring to tune for lies where it was said to lie, whatever ring is drawn on the mat; of
// two as near to it the steadier one is better.
func TestRingGoal(t *testing.T) {
	var scores []float64
	for _, c := range []motion.Conditions{nil, {"ring_at": 0.5, "ring": 0.03}} {
		w := bench(t, "mudskipper", 1, c)
		levers := w.Levers(nil)
		m, err := w.Measure(levers)(context.Background(), motion.Positions(levers), motion.Rough)
		if err != nil {
			t.Fatal(err)
		}
		at := m[ByLength]
		goal := w.Goal("ring", at)
		scores = append(scores, goal(m))
		if aside := w.Goal("ring", at+0.05)(m); aside > goal(m)-0.049 {
			t.Errorf("5 cm aside scores %v, at it %v", aside, goal(m))
		}
		steady := goal(m)
		w = bench(t, "mudskipper", 1, motion.Conditions{"hand": 1})
		if m, err = w.Measure(levers)(context.Background(), motion.Positions(levers), motion.Rough); err != nil {
			t.Fatal(err)
		}
		if wild := w.Goal("ring", m[ByLength])(m); wild >= steady {
			t.Errorf("a child's scatter scores %v, an adult's %v", wild, steady)
		}
	}
	if scores[0] != scores[1] {
		t.Errorf("a ring on the mat moves the goal: %v", scores)
	}
}

// Goals pull the way they say, and a search over the fold's place and its character finds
// at least what the pattern has.
func TestGoals(t *testing.T) {
	w := bench(t, "mudskipper", 1, motion.Conditions{"rope_at": 0.05, "rope": 0.03, "ring_at": 0.1, "ring": 0.03})
	levers := w.Levers(nil)
	var free []int
	for i, l := range levers {
		if l.Name == "last" || l.Name == KnobHipRadius || l.Name == KnobCatchRadius {
			free = append(free, i)
		}
		if l.Name == KnobGrain || l.Name == KnobOpening {
			t.Errorf("%s is not for a search to choose", l.Name)
		}
	}
	for _, aim := range way.Aims {
		f, err := tune.Optimise(context.Background(), levers, free, w.Measure(levers), w.Goal(aim.Name, 0.1), way.Gauge(aim.Gain), 60, nil)
		if err != nil {
			t.Fatal(err)
		}
		if f.Score < f.Was {
			t.Errorf("%s: %v after %v", aim.Name, f.Score, f.Was)
		}
		if aim.Name == "farthest" && f.After[ByLength] < 1.3*f.Before[ByLength] {
			t.Errorf("farthest: %v m from %v", f.After[ByLength], f.Before[ByLength])
		}
	}
}

// Conditions that belong together are wanted together, and rope, gap and ring are told.
func TestWhatIsInTheWay(t *testing.T) {
	for _, c := range []motion.Conditions{{"rope": 0.1}, {"rope_at": 0.1}, {"ring": 0.1}, {"ring_at": 0.2}, {"trigger": 9}, {"moon": 1}} {
		if _, err := way.Full(c); err == nil {
			t.Errorf("%v is taken", c)
		}
	}
	low, err := bench(t, "sandhopper", 1, motion.Conditions{"rope_at": 0.05, "rope": 0.005, "gap": 0.03, "ring_at": 0.2, "ring": 0.2}).Predict(t.Context(), nil, nil)
	if err != nil {
		t.Fatal(err)
	}
	high, err := bench(t, "sandhopper", 1, motion.Conditions{"rope_at": 0.05, "rope": 0.9}).Predict(t.Context(), nil, nil)
	if err != nil {
		t.Fatal(err)
	}
	if !strings.Contains(low.ModeWords, "clears the rope in 9") && !strings.Contains(low.ModeWords, "clears the rope in 100") || !strings.Contains(low.ModeWords, "gap") || !strings.Contains(low.ModeWords, "ring") || !strings.Contains(high.ModeWords, "clears the rope in 0 of 100") {
		t.Errorf("%s\n%s", low.ModeWords, high.ModeWords)
	}
	back, err := bench(t, "backswimmer", 1, motion.Conditions{"rope_at": 0.04, "rope": 0.01}).Predict(t.Context(), nil, nil)
	if err != nil || strings.Contains(back.ModeWords, "clears the rope in 0 of") {
		t.Errorf("a rope behind one that leaps back: %s, %v", back.ModeWords, err)
	}
	far, err := bench(t, "sandhopper", 1, motion.Conditions{"drop": 0.7}).Outlook(t.Context(), nil)
	if err != nil {
		t.Fatal(err)
	}
	near, err := bench(t, "sandhopper", 1, nil).Outlook(t.Context(), nil)
	if err != nil || far.Middle < 1.3*near.Middle {
		t.Errorf("off a table %v m, on it %v m", far.Middle, near.Middle)
	}
}

func BenchmarkSpread(b *testing.B) {
	w := bench(b, "sandhopper", 1, nil)
	_, g, set, err := w.toyAt(nil)
	if err != nil {
		b.Fatal(err)
	}
	b.ReportAllocs()
	for b.Loop() {
		w.spread(g, set, 1000, false)
	}
}

// A map of 20 by 20 points: the place of the last fold against how both are pressed, each
// point folded and hopped eight times.
func BenchmarkMap(b *testing.B) {
	for b.Loop() {
		w := bench(b, "mudskipper", 1, nil)
		levers := w.Levers(nil)
		at := map[string]int{}
		for i, l := range levers {
			at[l.Name] = i
		}
		if _, err := tune.Pair(context.Background(), levers, at["last"], at[KnobHipRadius], 20, w.Measure(levers)); err != nil {
			b.Fatal(err)
		}
	}
}

// What hands miss widens the band: a child's more than an adult's, and the doubt of the
// model more than both.
func TestBands(t *testing.T) {
	adult, child := bench(t, "sandhopper", 1, nil), bench(t, "sandhopper", 1, motion.Conditions{"hand": 1})
	_, g, set, err := adult.toyAt(nil)
	if err != nil {
		t.Fatal(err)
	}
	width := func(w *Workbench, constants bool) float64 {
		var v []float64
		for _, q := range w.scatter(g, set, motion.Sample{N: 40}, constants) {
			v = append(v, q.toy.Leap(q.trial).HeightM)
		}
		r := motion.RangeOf(v)
		return r.Hi / r.Lo
	}
	if a, c, m := width(adult, false), width(child, false), width(adult, true); !(1.05 < a && a < c && a < m && m > 2) {
		t.Errorf("an adult's hops lie within %.2f, a child's %.2f, with the model's doubt %.2f", a, c, m)
	}
}
