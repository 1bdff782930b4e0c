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
			if !c.OK {
				t.Errorf("%s as the pattern has it: %s", p.ID, c.Says)
			}
		}
	}
}
