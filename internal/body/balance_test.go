package body_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"tussock/internal/body"
	"tussock/internal/fold"
	"tussock/internal/foldtest"
	"tussock/internal/sequence"
)

// A point that is brought to the balance lies on the centre of mass that is then reported,
// whatever is clipped, taped or glued on before: 1,000 random loads at random spots.
func TestBalanceLandsOnTheCentreOfMass(t *testing.T) {
	random := rand.New(rand.NewPCG(14, 3))
	landed := 0
	for range 1000 {
		x, y := 5+90*random.Float64(), 5+110*random.Float64()
		what := []string{
			fmt.Sprintf("clip sheet(%.3f, %.3f) mass %.3f", x, y, 2*random.Float64()),
			fmt.Sprintf("tape sheet(%.3f, %.3f) size 10 10 mass %.3f", x, y, 0.2*random.Float64()),
		}[random.IntN(2)]
		text := "sheet rect 100 120\nmoves reveal\ncrease bring left to right as m\n" + what + "\nvalley bring TL to balance as f\n"
		p := foldtest.Parse(t, text)
		r := foldtest.On(t, p, 100, 120, nil)
		com := body.Measure(r.Final()).Loaded(r.Final(), r.Masses).CoM
		tip := r.Landmarks["TL"]
		f := r.Final().FacetsAtSheet(tip)
		if at := r.Final().F[f[0]].Iso.Apply(tip); at.Dist(com) > 1e-6 {
			t.Fatalf("%s: the tip lies at %v, the centre of mass at %v", what, at, com)
		}
		landed++
	}
	if landed != 1000 {
		t.Errorf("%d landed", landed)
	}
}

// The place called com weighs loads too, and glue: by hand, two weights on a lever.
func TestComWeighsLoads(t *testing.T) {
	r := foldtest.Fold(t, "sheet rect 100 100\nmoves reveal\nclip sheet(100, 50) mass 0.8\nvalley bring TL to com as f\n")
	// The sheet weighs 0.8 g at its middle; a clip of 0.8 g on the right edge moves the
	// centre of mass half-way: to (75, 50) before the fold.
	tip := r.Landmarks["TL"]
	f := r.Final().FacetsAtSheet(tip)
	if at := r.Final().F[f[0]].Iso.Apply(tip); math.Hypot(at.X-75, at.Y-50) > 1e-6 {
		t.Errorf("the corner lies at %v", at)
	}
}

// Studying errors leaves a replay as it was: no load is added twice.
func TestErrorStudiesAddNoLoads(t *testing.T) {
	r := foldtest.Fold(t, "sheet rect 100 100\nmoves reveal\nvalley bring left to right as f\nglue BL to BR mass 0.5\nclip T mass 0.2\nvalley bring top to bottom as g\n")
	n := len(r.Masses)
	before := body.Measure(r.Final()).Loaded(r.Final(), r.Masses)
	for range 3 {
		if _, err := r.WithErrors(nothing{}); err != nil {
			t.Fatal(err)
		}
	}
	if after := body.Measure(r.Final()).Loaded(r.Final(), r.Masses); len(r.Masses) != n || after.MassG != before.MassG || n != 2 {
		t.Errorf("%d loads became %d, %v g became %v g", n, len(r.Masses), before.MassG, after.MassG)
	}
	// The centre of mass with errors of nothing is that of the toy, loads and all.
	out, err := r.WithErrors(nothing{})
	if err != nil || out.CoM.Dist(before.CoM) > 1e-6 {
		t.Errorf("%+v, %v, without errors %v", out, err, before.CoM)
	}
}

// nothing is no error at all.
type nothing struct{}

func (nothing) Slip(int) (a, b float64)               { return 0, 0 }
func (nothing) Creep(*fold.State, fold.Hinge) float64 { return 0 }

// What a step does decides where the balance is: a single layer, a fold behind, a tip that
// is reversed. Each time the tip lands on the centre of mass that is then reported, and it
// is another place each time.
func TestBalanceFollowsTheFold(t *testing.T) {
	places := map[string]float64{}
	for _, c := range []struct{ name, text, tip string }{
		{"all that hangs on it", "sheet rect 100 140\nmoves reveal\nvalley bring left to right as d\nclip B mass 1\nvalley bring T to balance layers all as f\n", "T"},
		{"the top layer", "sheet rect 100 140\nmoves reveal\nvalley bring left to right as d\nclip B mass 1\nvalley bring TL to balance layers top 1 at TL as f\n", "TL"},
		{"behind", "sheet rect 100 140\nmoves reveal\nvalley bring left to right as d\nclip B mass 1\nmountain bring TR to balance layers bottom 1 at TR as f\n", "TR"},
		{"reversed", "sheet square 100\nmoves reveal\nvalley bring TR to BL as d\nclip BR mass 1\nreverse inside TL bring TL to balance spine TL BR as f\n", "TL"},
	} {
		r := foldtest.Fold(t, c.text)
		m := body.Measure(r.Final()).Loaded(r.Final(), r.Masses)
		at, ok := sequence.Place(r.Final(), r.Landmarks[c.tip])
		if !ok || at.Dist(m.CoM) > 1e-6 {
			t.Errorf("%s: the tip lies at %v, the centre of mass at %v", c.name, at, m.CoM)
		}
		places[c.name] = m.CoM.Y
	}
	if math.Abs(places["the top layer"]-places["all that hangs on it"]) < 0.1 {
		t.Errorf("one layer or all, the balance is the same: %v", places)
	}
}

// As it stands: a token opened to a right angle balances where two half plates do.
func TestComAsItStands(t *testing.T) {
	r := foldtest.Fold(t, "sheet square 100\nmoves reveal\nvalley bring left to right as d\nopen along d moving L angle 90\naxle com standing\nexpect sheets 2 at com standing\n")
	// Halves of 50 by 100: one lies, 25 mm from the fold; one stands upright on the fold.
	got := r.Notes[0].At
	c := body.Standing(r).Weigh().CoM
	near(t, "by hand, x", c.X, (75.+50)/2, 1e-9)
	near(t, "by hand, height", math.Abs(c.Z), 12.5, 1e-9)
	at, _ := sequence.Place(r.Final(), got)
	near(t, "the axle's spot", at.X, 62.5, 1e-6)
	near(t, "the axle's spot, y", got.Y, 50, 1e-6)
}
