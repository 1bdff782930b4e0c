package body_test

import (
	"math"
	"testing"

	"tussock/internal/body"
	"tussock/internal/fold/layermap"
	"tussock/internal/foldtest"
	"tussock/internal/motion/glide/craft"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
	"tussock/internal/shelf"
)

// row is one line of the engine's reference table: coordinates and lengths in
// mm, areas in mm², to the digits printed there.
type row struct {
	text                  string
	moved, facets, layers int
	w, h, area, x, y      float64
}

var tables = []struct {
	name string
	rows []row
}{
	{"pointed", []row{
		{"crease bring left to right as keel", 0, 2, 1, 210.0000, 297.0000, 62370.000, 105.00000, 148.50000},
		{"valley bring TL to keel through T near C expect 1 as c1", 1, 3, 2, 210.0000, 297.0000, 56857.500, 108.09343, 145.40657},
		{"valley bring TR to keel through T near C expect 1 as c2", 1, 4, 2, 210.0000, 297.0000, 51345.000, 105.00000, 142.31313},
		{"valley bring c1 to keel expect 2 as d1", 2, 6, 4, 210.0000, 297.0000, 43549.148, 111.18687, 139.75045},
		{"valley bring c2 to keel expect 2 as d2", 2, 8, 4, 210.0000, 297.0000, 35753.295, 105.00000, 137.18776},
		{"mountain along keel moving BR layers all as spine", 4, 8, 8, 105.0000, 297.0000, 17876.648, 71.06061, 137.18776},
		{"valley bring d1 to keel grab BL expect 4 as w1", 4, 12, 12, 105.0000, 314.5740, 18313.420, 80.08088, 135.39352},
		{"turn lr", 0, 12, 12, 105.0000, 314.5740, 18313.420, 129.91912, 135.39352},
		{"valley bring d2 to keel grab BR expect 4 as w2", 4, 16, 16, 59.0770, 314.5740, 9209.703, 120.89885, 133.59928},
		{"wing along w1 moving BL angle 90", 0, 16, 16, 59.0770, 314.5740, 9209.703, 120.89885, 133.59928},
	}},
	{"lock", []row{
		{"crease bring left to right as keel", 0, 2, 1, 210.0000, 297.0000, 62370.000, 105.00000, 148.50000},
		{"valley bring TL to keel through T near C expect 1 as c1", 1, 3, 2, 210.0000, 297.0000, 56857.500, 108.09343, 145.40657},
		{"valley bring TR to keel through T near C expect 1 as c2", 1, 4, 2, 210.0000, 297.0000, 51345.000, 105.00000, 142.31313},
		{"valley along [SL SR] moving T grab T expect 4 as base", 4, 6, 3, 210.0000, 192.0000, 40320.000, 105.00000, 117.56566},
		{"valley bring SL to [B NC] through G1 near T as s1", 3, 9, 6, 210.0000, 192.0000, 35726.721, 109.84861, 113.74786},
		{"valley bring SR to [B NC] through G2 near T as s2", 3, 12, 6, 210.0000, 192.0000, 31133.443, 105.00000, 109.93006},
		{"valley through meet([T Q1],[SL LE]) square [B NC] moving T expect 4 as lock", 4, 16, 8, 210.0000, 192.0000, 31133.443, 105.00000, 110.05440},
		{"mountain along [B NC] moving BR layers all as spine", 8, 16, 16, 105.0000, 192.0000, 15566.721, 68.38408, 110.05440},
		{"valley along par([B NC],25,BL) moving BL as w1", 6, 22, 18, 160.0000, 192.0000, 22106.850, 84.80384, 110.05440},
		{"turn lr", 0, 22, 18, 160.0000, 192.0000, 22106.850, 125.19616, 110.05440},
		{"valley along par([B NC],25,BR) moving BR as w2", 6, 28, 24, 80.0000, 192.0000, 11323.934, 108.77639, 110.05440},
	}},
	{"fortune", []row{
		{"crease through BL TR", 0, 2, 1, 150.0000, 150.0000, 22500.000, 75.00000, 75.00000},
		{"crease through BR TL", 0, 4, 1, 150.0000, 150.0000, 22500.000, 75.00000, 75.00000},
		{"valley bring TL to C as a1", 2, 6, 2, 150.0000, 150.0000, 19687.500, 78.12500, 71.87500},
		{"valley bring TR to C as a2", 2, 8, 2, 150.0000, 150.0000, 16875.000, 75.00000, 68.75000},
		{"valley bring BL to C as a3", 2, 10, 2, 150.0000, 150.0000, 14062.500, 78.12500, 71.87500},
		{"valley bring BR to C as a4", 2, 12, 2, 150.0000, 150.0000, 11250.000, 75.00000, 75.00000},
		{"turn lr", 0, 12, 2, 150.0000, 150.0000, 11250.000, 75.00000, 75.00000},
		{"valley bring L to C as e1", 3, 15, 4, 112.5000, 150.0000, 9843.750, 71.87500, 75.00000},
		{"valley bring R to C as e2", 3, 18, 4, 75.0000, 150.0000, 8437.500, 75.00000, 75.00000},
		{"valley bring T to C as e3", 3, 21, 4, 75.0000, 112.5000, 7031.250, 75.00000, 71.87500},
		{"valley bring B to C as e4", 3, 24, 4, 75.0000, 75.0000, 5625.000, 75.00000, 75.00000},
		{"crease bring e1 to e2 layers all as h1", 0, 28, 4, 75.0000, 75.0000, 5625.000, 75.00000, 75.00000},
		{"crease bring e3 to e4 layers all as h2", 0, 32, 4, 75.0000, 75.0000, 5625.000, 75.00000, 75.00000},
	}},
	{"bird", []row{
		{"crease bring left to right as v", 0, 2, 1, 150.0000, 150.0000, 22500.000, 75.00000, 75.00000},
		{"crease bring bottom to top as h", 0, 4, 1, 150.0000, 150.0000, 22500.000, 75.00000, 75.00000},
		{"turn lr", 0, 4, 1, 150.0000, 150.0000, 22500.000, 75.00000, 75.00000},
		{"crease through BL TR as d1", 0, 6, 1, 150.0000, 150.0000, 22500.000, 75.00000, 75.00000},
		{"crease through BR TL as d2", 0, 8, 1, 150.0000, 150.0000, 22500.000, 75.00000, 75.00000},
		{"turn lr", 0, 8, 1, 150.0000, 150.0000, 22500.000, 75.00000, 75.00000},
		{"collapse fixed sheet(10,20) M L R M T B V BR TL", 6, 8, 4, 75.0000, 75.0000, 5625.000, 37.50000, 37.50000},
		{"rotate 45", 0, 8, 4, 106.0660, 106.0660, 5625.000, 75.00000, 21.96699},
		{"petal BL creases bis([BL B],[BL C]) bis([BL L],[BL C]) spines [C B] [C L]", 6, 14, 6, 106.0660, 150.0000, 6989.854, 75.00000, 33.83883},
		{"turn lr", 0, 14, 6, 106.0660, 150.0000, 6989.854, 75.00000, 33.83883},
		{"petal TR creases bis([TR T],[TR C]) bis([TR R],[TR C]) spines [C T] [C R]", 6, 20, 8, 62.1320, 150.0000, 4659.903, 75.00000, 45.71068},
		{"reverse inside TL through P1 N1 spine TL C", 4, 24, 12, 98.9110, 150.0000, 4233.200, 78.61658, 51.27616},
		{"reverse inside BR through P2 N2 spine BR C", 4, 28, 12, 121.8159, 91.5000, 3726.231, 75.51827, 58.46541},
		{"reverse inside TL through Hd He spine TL C", 4, 32, 12, 119.6790, 91.5000, 3703.265, 75.51075, 58.38848},
		{"valley bring TR to WA grab TR as wingB", 4, 36, 12, 119.6790, 91.5000, 3703.265, 75.51075, 57.34984},
		{"turn lr", 0, 36, 12, 119.6790, 91.5000, 3703.265, 74.48925, 57.34984},
		{"valley bring BL to WA grab BL as wingA", 4, 40, 12, 119.6790, 66.7329, 3200.287, 74.48925, 56.31119},
	}},
	{"frog", []row{
		{"crease bring TL to right through TR near BR as dA", 0, 2, 1, 100.0000, 200.0000, 20000.000, 50.00000, 100.00000},
		{"crease bring TR to left through TL near BL as dB", 0, 4, 1, 100.0000, 200.0000, 20000.000, 50.00000, 100.00000},
		{"turn lr", 0, 4, 1, 100.0000, 200.0000, 20000.000, 50.00000, 100.00000},
		{"crease through H1 H2 as hz", 0, 6, 1, 100.0000, 200.0000, 20000.000, 50.00000, 100.00000},
		{"turn lr", 0, 6, 1, 100.0000, 200.0000, 20000.000, 50.00000, 100.00000},
		{"collapse fixed B V A1 TR V A2 TL M H1 H2", 5, 6, 4, 100.0000, 150.0000, 12500.000, 50.00000, 83.33333},
		{"valley bring TL to X grab TL expect 2 as leg1", 2, 8, 6, 100.0000, 150.0000, 12500.000, 51.04167, 84.37500},
		{"valley bring TR to X grab TR expect 2 as leg2", 2, 10, 6, 100.0000, 150.0000, 12500.000, 50.00000, 85.41667},
		{"valley bring [BL A1] to [B K] under TL as s1", 2, 12, 6, 75.0000, 150.0000, 9687.500, 53.64583, 85.41667},
		{"valley bring [BR A2] to [B K] under TR as s2", 2, 14, 6, 50.0000, 150.0000, 6875.000, 50.00000, 85.41667},
		{"valley bring B to K layers all as p1", 3, 17, 6, 50.0000, 100.0000, 4375.000, 50.00000, 97.91667},
		{"valley bring B to E1 as p2", 3, 20, 6, 50.0000, 100.0000, 4375.000, 50.00000, 94.79167},
	}},
}

func parsed(t testing.TB, name string) *sequence.Pattern {
	t.Helper()
	return foldtest.Reference(t, name)
}

func on(t testing.TB, p *sequence.Pattern, w, h float64, knobs map[string]float64) *sequence.Replay {
	t.Helper()
	return foldtest.On(t, p, w, h, knobs)
}

func near(t *testing.T, what string, got, want, tol float64) {
	t.Helper()
	if !(math.Abs(got-want) <= tol) {
		t.Errorf("%s is %.9f, want %.9f within %g", what, got, want, tol)
	}
}

func TestStepByStepReference(t *testing.T) {
	for _, table := range tables {
		p := parsed(t, table.name)
		r := on(t, p, p.WidthMM, p.HeightMM, nil)
		steps := body.Steps(r)
		if len(steps) != len(table.rows) {
			t.Fatalf("%s has %d steps, want %d", table.name, len(steps), len(table.rows))
		}
		compareSteps(t, table.name, steps, table.rows)
		if f := r.Final().Faults(); len(f) > 0 {
			t.Errorf("%s: %v", table.name, f)
		}
	}
}

func compareSteps(t *testing.T, name string, steps []body.StepReport, rows []row) {
	t.Helper()
	for i, want := range rows {
		got := steps[i]
		if got.Moved != want.moved || got.Facets != want.facets || got.MaxLayers != want.layers {
			t.Errorf("%s step %d moves %d of %d pieces, %d layers; want %d of %d, %d", name, got.Step,
				got.Moved, got.Facets, got.MaxLayers, want.moved, want.facets, want.layers)
		}
		near(t, name+" box width", got.Box[0], want.w, 1e-4)
		near(t, name+" box height", got.Box[1], want.h, 1e-4)
		near(t, name+" area", got.Area, want.area, 1e-3)
		near(t, name+" CoM x", got.CoM[0], want.x, 1e-5)
		near(t, name+" CoM y", got.CoM[1], want.y, 1e-5)
	}
}

// The patterns on the shelf must be the reference gliders, the one with the depth of keel
// that it has there.
func TestShelfDefaultsAreTheReference(t *testing.T) {
	for id, table := range map[string]int{"curlew": 0, "shelduck": 1} {
		p, ok := shelf.Find(id)
		if !ok {
			t.Fatalf("no %s on the shelf", id)
		}
		compareSteps(t, id, body.Steps(on(t, p, 210, 297, map[string]float64{"depth": []float64{0, 25}[table]})), tables[table].rows)
	}
}

func TestSummaryReference(t *testing.T) {
	for _, c := range []struct {
		name                               string
		w, h                               float64
		facets, hinges, folded, m, v       int
		boxW, boxH, area, x, y, massPerGSM float64
		layers                             int
	}{
		{"pointed", 210, 297, 16, 15, 15, 7, 8, 59.07697, 314.57398, 9209.7031, 120.898854, 133.599275, 0.0623700, 16},
		{"pointed", 215.9, 279.4, 16, 15, 15, 7, 8, 55.57612, 299.44262, 8330.5869, 122.854781, 123.366572, 0.06032246, 16},
		{"lock", 210, 297, 28, 45, 45, 14, 31, 80, 192, 11323.9344, 108.776393, 110.054395, 0.0623700, 24},
		{"fortune", 150, 150, 32, 40, 24, 8, 16, 75, 75, 5625, 75, 75, 0.0225, 4},
		{"squashes", 150, 150, 8, 8, 6, 2, 4, 75, 75, 5625, 37.5, 37.5, 0.0225, 4},
		{"preliminary", 150, 150, 8, 8, 6, 4, 2, 75, 75, 5625, 37.5, 37.5, 0.0225, 4},
		{"waterbomb", 150, 150, 6, 6, 6, 2, 4, 150, 75, 5625, 75, 25, 0.0225, 4},
		{"waterbomb", 210, 297, 6, 6, 6, 2, 4, 210, 148.5, 15592.5, 105, 57.751122, 0.06237, 6},
		{"bird", 150, 150, 40, 61, 51, 34, 17, 119.67899, 66.73288, 3200.2870, 74.489248, 56.311194, 0.0225, 12},
		{"frog", 100, 200, 20, 28, 28, 9, 19, 50, 100, 4375, 50, 94.791667, 0.0200, 6},
		{"frog", 90, 150, 20, 28, 28, 9, 19, 45, 75, 2868.75, 45, 63.75, 0.0135, 6},
		{"pentagon", 150, 150, 10, 10, 0, 0, 0, 111.80340, 117.55705, 9081.7816, 75, 75, 0.0090817816, 1},
		{"tuck", 100, 200, 3, 2, 2, 0, 2, 100, 90, 9000, 50, 105.5, 0.02, 3},
		{"pleat", 60, 240, 4, 3, 2, 1, 1, 60, 150, 9000, 30, 87.1875, 0.0144, 3},
	} {
		r := on(t, parsed(t, c.name), c.w, c.h, nil)
		f := body.Final(r)
		n := r.Final().Count()
		if f.Facets != c.facets || n.Hinges != c.hinges || n.Folded != c.folded || f.Mountain != c.m || f.Valley != c.v || f.MaxLayers != c.layers {
			t.Errorf("%s: %d pieces, hinges %+v, %d layers", c.name, f.Facets, n, f.MaxLayers)
		}
		near(t, c.name+" width", f.Box[0], c.boxW, 1e-5)
		near(t, c.name+" height", f.Box[1], c.boxH, 1e-5)
		near(t, c.name+" area", f.Area, c.area, 1e-4)
		near(t, c.name+" x", f.CoM[0], c.x, 1e-6)
		near(t, c.name+" y", f.CoM[1], c.y, 1e-6)
		near(t, c.name+" mass per g/m²", f.MassG/80, c.massPerGSM, 1e-8)
		if m := body.Measure(r.Final()); math.Abs(m.LayerSum-r.Final().PaperMM2()) > 1e-6 {
			t.Errorf("%s: layers x area is %v of %v mm²", c.name, m.LayerSum, r.Final().PaperMM2())
		}
	}
}

// The independent hand check of the reference: the pointed glider's BL corner.
func TestCornerByHand(t *testing.T) {
	f := body.Final(on(t, parsed(t, "pointed"), 210, 297, nil))
	radius := math.Hypot(105, 297)
	angle := 22.5*math.Pi/180 - math.Atan2(105, 297)
	bl := f.Landmarks["BL"]
	near(t, "BL x", bl[0], 105+radius*math.Sin(angle), 1e-9)
	near(t, "BL y", bl[1], 297-radius*math.Cos(angle), 1e-9)
}

func TestPoseReference(t *testing.T) {
	for _, c := range []struct {
		name                                  string
		w, h, angle                           float64
		g, x, y, ixx, iyy, izz, ixy, ixz, iyz float64
	}{
		{"flat", 210, 297, 180, 4.989600, 120.89885, 133.59928, 29765.8842, 797.5589, 30563.4431, 2845.9903, 0, 0},
		{"wings 90", 210, 297, 90, 4.989600, 129.91912, 135.39352, 30307.8001, 2562.4490, 30401.6940, 4533.5860, 0, 0},
		{"wings 80", 210, 297, 80, 4.989600, 131.48548, 135.70509, 30156.6551, 2776.6055, 30539.1415, 4794.9602, 0, 0},
		{"Letter, wings 90", 215.9, 279.4, 90, 4.825797, 131.96290, 125.17829, 25590.0483, 2382.6811, 25544.3798, 3958.5879, 0, 0},
	} {
		p, _ := shelf.Find("curlew")
		pose := body.Standing(on(t, p, c.w, c.h, map[string]float64{"wing": c.angle}))
		m := pose.Weigh()
		near(t, c.name+" residual", pose.Residual, 0, 1e-9)
		near(t, c.name+" mass", m.G, c.g, 1e-6)
		near(t, c.name+" CoM x", m.CoM.X, c.x, 1e-5)
		near(t, c.name+" CoM y", m.CoM.Y, c.y, 1e-5)
		near(t, c.name+" CoM z", m.CoM.Z, 0, 1e-9)
		for i, pair := range [][2]float64{{m.Ixx, c.ixx}, {m.Iyy, c.iyy}, {m.Izz, c.izz}, {m.Ixy, c.ixy}, {m.Ixz, c.ixz}, {m.Iyz, c.iyz}} {
			near(t, c.name+" inertia "+string(rune('0'+i)), pair[0], pair[1], 1e-4)
		}
	}
}

// Level wings: the span is twice what one flat wing reaches beyond its crease;
// raising them to a V of a degrees shortens it by cos a.
func TestGliderMeasures(t *testing.T) {
	p, _ := shelf.Find("shelduck")
	measure := func(angle float64) craft.Measures {
		r := on(t, p, 210, 297, map[string]float64{"wing": angle, "depth": 25})
		g, ok := craft.Measure(r, craft.Stand(r))
		if !ok {
			t.Fatal("a finished glider has no measures")
		}
		return g
	}
	level := measure(90)
	near(t, "span", level.SpanMM, 160, 1e-9)
	near(t, "keel depth", level.KeelDepthMM, 25, 1e-9)
	near(t, "length", level.LengthMM, 192, 1e-9)
	raised := measure(70)
	near(t, "V", raised.VDeg, 20, 1e-12)
	near(t, "span of a V", raised.SpanMM, 160*math.Cos(20*math.Pi/180), 1e-9)
	near(t, "wing area does not change", raised.WingAreaMM2, level.WingAreaMM2, 1e-6)
	near(t, "along the keel the centre of mass stays", raised.CoMAftMM, level.CoMAftMM, 1e-9)
	if raised.CoMUpMM <= level.CoMUpMM {
		t.Errorf("raising the wings lowers the centre of mass: %v to %v", level.CoMUpMM, raised.CoMUpMM)
	}
}

// Doubling the sheet doubles lengths and leaves shape alone; heavier paper
// changes mass only.
func TestScaling(t *testing.T) {
	p := parsed(t, "pointed")
	a, b := body.Final(on(t, p, 210, 297, nil)), body.Final(on(t, p, 420, 594, nil))
	near(t, "box", b.Box[0], 2*a.Box[0], 1e-9)
	near(t, "area", b.Area, 4*a.Area, 1e-6)
	near(t, "mass", b.MassG, 4*a.MassG, 1e-9)
	near(t, "CoM", b.CoM[1], 2*a.CoM[1], 1e-9)
	s, _ := sheet.New(210, 297, 160, 0.2)
	heavy := body.Final(p.Run(s, nil))
	near(t, "mass of heavier paper", heavy.MassG, 2*a.MassG, 1e-12)
	near(t, "CoM of heavier paper", heavy.CoM[0], a.CoM[0], 0)
}

func TestKnobsChangeTheToy(t *testing.T) {
	p, _ := shelf.Find("curlew")
	measure := func(k map[string]float64) craft.Measures {
		r := on(t, p, 210, 297, k)
		if f := r.Final().Faults(); len(f) > 0 {
			t.Fatalf("%v: %v", k, f)
		}
		g, _ := craft.Measure(r, craft.Stand(r))
		return g
	}
	base := measure(nil)
	if g := measure(map[string]float64{"depth": 10}); g.KeelDepthMM <= base.KeelDepthMM || g.SpanMM >= base.SpanMM {
		t.Errorf("a deeper keel gives depth %v span %v, before %v %v", g.KeelDepthMM, g.SpanMM, base.KeelDepthMM, base.SpanMM)
	}
	if g := measure(map[string]float64{"slope": 3}); g.KeelDepthMM <= base.KeelDepthMM {
		t.Errorf("more slope gives keel %v, before %v", g.KeelDepthMM, base.KeelDepthMM)
	}
	if g := measure(map[string]float64{"nose": 20}); g.WingAreaMM2 == base.WingAreaMM2 || g.CoMAftMM == base.CoMAftMM {
		t.Error("a blunt nose changes nothing")
	}
	if g := measure(map[string]float64{"wing": 60}); g.VDeg != 30 {
		t.Errorf("wing 60 gives a V of %v", g.VDeg)
	}
}

func BenchmarkLayerMap(b *testing.B) {
	f := on(b, parsed(b, "lock"), 210, 297, nil).Final()
	b.ReportAllocs()
	for b.Loop() {
		layermap.Cells(f)
	}
}
