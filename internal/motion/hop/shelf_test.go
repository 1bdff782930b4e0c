package hop

import (
	"math"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"tussock/internal/motion"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
)

// hoppers are the patterns of the shelf that hop, with the sizes they are written for.
func hoppers(t testing.TB) []*sequence.Pattern {
	t.Helper()
	files, err := filepath.Glob(filepath.Join("..", "..", "shelf", "*.pattern"))
	if err != nil {
		t.Fatal(err)
	}
	var out []*sequence.Pattern
	for _, f := range files {
		text, err := os.ReadFile(f)
		if err != nil {
			t.Fatal(err)
		}
		if strings.Contains(string(text), "\nmoves hop\n") {
			out = append(out, pattern(t, strings.TrimSuffix(filepath.Base(f), ".pattern")))
		}
	}
	if len(out) != 5 {
		t.Fatalf("%d hoppers on the shelf", len(out))
	}
	return out
}

func on(p *sequence.Pattern, scale float64) sheet.Sheet {
	return sheet.Sheet{WidthMM: p.WidthMM * scale, HeightMM: p.HeightMM * scale, GSM: 70, ThicknessMM: 0.09}
}

func trying(t testing.TB, p *sequence.Pattern, s sheet.Sheet, c motion.Conditions) *Workbench {
	t.Helper()
	full, err := way.Full(c)
	if err != nil {
		t.Fatal(err)
	}
	return NewShapes(p, s).Under(full, motion.Calibration{}).(*Workbench)
}

// Every hopper folds at any size, with the same shape; it stands on its feet, its foot
// ends short of the hip, and it leaps the way its pleat says. Only the animal with the
// bent rear leaps backward.
func TestHoppersOfTheShelf(t *testing.T) {
	for _, p := range hoppers(t) {
		var one Geometry
		for _, scale := range []float64{1, 0.5, 1.3} {
			r := p.Run(on(p, scale), nil)
			if r.Err != nil {
				t.Errorf("%s at %v: %v", p.ID, scale, r.Err)
				continue
			}
			g, err := Of(r)
			if err != nil {
				t.Fatalf("%s: %v", p.ID, err)
			}
			if scale == 1 {
				one = g
			}
			// Gaps are given in mm, so that shapes differ by some tenths.
			for _, q := range [][2]float64{{g.BodyMM, one.BodyMM}, {g.MiddleMM, one.MiddleMM}, {g.FootMM, one.FootMM}, {g.WidthMM, one.WidthMM}, {g.CoMMM, one.CoMMM}} {
				if math.Abs(q[0]-scale*q[1]) > 0.8 {
					t.Errorf("%s at %v: %.2f mm, %.2f at full size", p.ID, scale, q[0], q[1])
				}
			}
			if over := g.FootMM - g.MiddleMM; over > 0 || g.FootMM < g.MiddleMM/2 {
				t.Errorf("%s at %v: overhang %.2f, foot %.2f mm", p.ID, scale, over, g.FootMM)
			}
			if g.Backward != (p.ID == "backswimmer") || g.BodyShare < 0.4 || g.BodyShare > 0.95 || g.SlantDeg > 1 {
				t.Errorf("%s at %v: %+v", p.ID, scale, g)
			}
			if inside(g.hull(), g.at(g.WholeCoMMM)) < 1 {
				t.Errorf("%s at %v: the centre of mass lies outside of the feet", p.ID, scale)
			}
			if m := math.Abs(g.MassG - r.Final().PaperMM2()*70e-6); m > 1e-9 {
				t.Errorf("%s: %v g are missing", p.ID, m)
			}
		}
		w := trying(t, p, on(p, 1), nil)
		v, err := w.Predict(t.Context(), nil, nil)
		if err != nil || !v.Works {
			t.Fatalf("%s: %v", p.ID, err)
		}
		ahead := v.Outcomes[0].Middle > 0
		if ahead == (p.ID == "backswimmer") {
			t.Errorf("%s comes to %+v", p.ID, v.Outcomes[0])
		}
		for _, c := range v.Checks {
			if !c.OK && c.ID != "range" {
				t.Errorf("%s as the pattern has it: %s", p.ID, c.Says)
			}
		}
	}
}

// Every hopper leaps 8 cm or more as it comes, from its own sheet of 70 g/m² in the hand of
// an adult; legs that are opened hold the nose up, and a body lies over its underside.
func TestHoppersLeap(t *testing.T) {
	for _, p := range hoppers(t) {
		s, err := sheet.New(p.WidthMM, p.HeightMM, 70, 70.0/800)
		if err != nil {
			t.Fatal(err)
		}
		w := trying(t, p, s, nil)
		o, err := w.Outlook(t.Context(), nil)
		if err != nil {
			t.Fatal(err)
		}
		far := math.Abs(o.Middle)
		if far < 0.08 || far > 0.5 || math.Abs(o.Hi-o.Lo) < 0.3*far {
			t.Errorf("%s leaps %.1f cm, %.1f to %.1f", p.ID, 100*far, 100*o.Lo, 100*o.Hi)
		}
		toy, g, _, err := w.toyAt(nil)
		if err != nil || toy.CoMUp < 0.1e-3 || toy.CoMUp > 2e-3 || g.NoseUpMM < springyLegsMM || g.NoseUpMM > g.BodyMM/2 {
			t.Errorf("%s: its body lies %.2f mm over its underside, its nose %.1f mm up (%v)", p.ID, 1e3*toy.CoMUp, g.NoseUpMM, err)
		}
	}
	// Legs that are opened further hold it higher, and it leaps farther.
	w := trying(t, pattern(t, "spadefoot"), on(pattern(t, "spadefoot"), 1), nil)
	var last float64
	for _, deg := range []float64{0, 10, 20, 30} {
		toy, _, _, err := w.toyAt(map[string]float64{"toe": deg})
		if err != nil || deg > 0 && toy.NoseUpM <= last {
			t.Errorf("legs opened by %v° hold the nose %.1f mm up (%v)", deg, 1e3*toy.NoseUpM, err)
		}
		last = toy.NoseUpM
	}
}

// A toy whose spring gives four times what is predicted is followed, not cut off at what
// its paper was thought to bear.
func TestLearningFollowsAStrongSpring(t *testing.T) {
	p := pattern(t, "backswimmer")
	w := trying(t, p, on(p, 1), nil)
	o, err := w.Outlook(t.Context(), nil)
	if err != nil {
		t.Fatal(err)
	}
	want := 4 * math.Abs(o.Middle)
	log := motion.Observation{Trying: w, Build: 1}
	for i := range 12 {
		log.Log = append(log.Log, motion.Noted{Read: map[string]float64{Length: want * (0.9 + 0.02*float64(i))}})
	}
	var all []motion.Observation
	for range 6 {
		all = append(all, log)
	}
	c, err := way.Full(nil)
	if err != nil {
		t.Fatal(err)
	}
	learnt, err := NewShapes(p, on(p, 1)).Under(c, Learn(all)).Outlook(t.Context(), nil)
	if got := math.Abs(learnt.Middle); err != nil || got < 0.75*want || got > 1.25*want {
		t.Errorf("hops of %.2f m, learnt %.2f, untaught %.2f (%v)", want, got, math.Abs(o.Middle), err)
	}
}
