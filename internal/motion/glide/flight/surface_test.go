package flight

import (
	"math"
	"testing"

	"tussock/internal/motion/glide/air"
	"tussock/internal/motion/glide/air/airtest"
	"tussock/internal/motion/glide/craft"
	"tussock/internal/sheet"
)

var a4 = sheet.Sheet{WidthMM: 210, HeightMM: 297, GSM: 80, ThicknessMM: 0.1}

func toy(t testing.TB, id string, s sheet.Sheet, knobs map[string]float64) (craft.Toy, air.Bends) {
	t.Helper()
	p := pattern(t, id)
	r := p.Run(s, knobs)
	if r.Err != nil {
		t.Fatal(r.Err)
	}
	g, ok := craft.Of(r)
	if !ok {
		t.Fatalf("%s cannot be thrown", id)
	}
	return g, craft.BendsOf(craft.LastBendsOf(r.Values))
}

func shelfGlider(t testing.TB, id string, knobs map[string]float64) *Model {
	t.Helper()
	g, b := toy(t, id, a4, knobs)
	return ModelOf(g, b)
}

func gliderOn(t testing.TB, id string, gsm float64, knobs map[string]float64) *Model {
	t.Helper()
	s := a4
	s.GSM = gsm
	g, b := toy(t, id, s, knobs)
	return NewModel(g.Shape, g.Weight, b)
}

// The strips hold the wing: their area is the wing's, measured from its pieces.
func TestStripsHoldTheWing(t *testing.T) {
	for _, id := range []string{"curlew", "shelduck"} {
		p := pattern(t, id)
		for _, v := range []float64{90, 75} {
			r := p.Run(a4, map[string]float64{"wing": v})
			g, _ := craft.Measure(r, craft.Stand(r))
			x, ok := craft.Of(r)
			if !ok || !x.Glider {
				t.Fatalf("%s is no glider", id)
			}
			if got := x.Shape.AreaM2 * 1e6; math.Abs(got-g.WingAreaMM2) > 0.06*g.WingAreaMM2 {
				t.Errorf("%s, wings at %v°: strips of %.0f mm², a wing of %.0f", id, v, got, g.WingAreaMM2)
			}
			if got := x.Shape.SpanM * 1e3; math.Abs(got-g.SpanMM) > 0.01*g.SpanMM {
				t.Errorf("%s: a span of %v, not %v", id, got, g.SpanMM)
			}
		}
	}
}

// A pointed glider: the slender limit pi AR/2 bounds its lift from above; its margin is
// small.
func TestPointedGliderIsSlender(t *testing.T) {
	m := shelfGlider(t, "curlew", nil)
	ar := m.Shape.AspectRatio()
	if limit := math.Pi * ar / 2; ar > 1.2 || m.D.CNa > limit || m.D.CNa < 0.7*limit {
		t.Errorf("aspect ratio %v, lift %v", ar, m.D.CNa)
	}
	if math.Abs(m.Margin()) > 0.15 {
		t.Errorf("its margin is %v", m.Margin())
	}
}

// Scale leaves the coefficients; a heavier paper loads the wing and leaves the rest; a V
// gives lift away and adds roll in sideslip.
func TestModelFollowsTheToy(t *testing.T) {
	base := shelfGlider(t, "curlew", nil)
	half := a4
	half.WidthMM, half.HeightMM = a4.WidthMM/2, a4.HeightMM/2
	g, b := toy(t, "curlew", half, map[string]float64{"curl_depth": 5})
	small := NewModel(g.Shape, g.Weight, b)
	airtest.Near(t, "lift of a small one", small.D.CNa, base.D.CNa, 1e-6)
	airtest.Near(t, "its neutral point", small.D.NeutralM, base.D.NeutralM/2, 1e-6)
	heavy := gliderOn(t, "curlew", 120, nil)
	airtest.Near(t, "the loading of a heavy one", heavy.LoadingNM2(), 1.5*base.LoadingNM2(), 1e-9)
	airtest.Near(t, "its lift", heavy.D.CNa, base.D.CNa, 1e-9)
	v := shelfGlider(t, "curlew", map[string]float64{"wing": 60})
	if v.D.CNa >= base.D.CNa || v.D.Clb >= base.D.Clb {
		t.Errorf("with a V of 30° it lifts %v, level %v; it rolls %v, level %v", v.D.CNa, base.D.CNa, v.D.Clb, base.D.Clb)
	}
}

// A wing that is set higher on the right makes the toy uneven, and only then.
func TestUnevenWings(t *testing.T) {
	f := shelfGlider(t, "shelduck", map[string]float64{"wing": 80, "curl": 3}).Fly(Throw{SpeedMS: 5, HeightM: 1.6}, Room{}, nil)
	g := shelfGlider(t, "shelduck", map[string]float64{"wing": 80, "curl": 3, "wing_uneven": 8}).Fly(Throw{SpeedMS: 5, HeightM: 1.6}, Room{}, nil)
	h := shelfGlider(t, "shelduck", map[string]float64{"wing": 80, "curl": 3, "wing_uneven": -8}).Fly(Throw{SpeedMS: 5, HeightM: 1.6}, Room{}, nil)
	if math.Abs(f.DriftM) > 1e-3 || math.Abs(g.DriftM) < 0.02 || g.DriftM*h.DriftM > 0 {
		t.Errorf("drift %v even, %v right higher, %v left higher", f.DriftM, g.DriftM, h.DriftM)
	}
}

// What is no glider is thrown as a plate, and it does not glide.
func TestThrowingOtherToys(t *testing.T) {
	p := pattern(t, "fortune")
	r := p.Run(sheet.Sheet{WidthMM: 150, HeightMM: 150, GSM: 80, ThicknessMM: 0.1}, nil)
	g, ok := craft.Of(r)
	if !ok || g.Glider {
		t.Fatalf("%v %v", ok, g.Glider)
	}
	f := NewModel(g.Shape, g.Weight, air.Bends{}).Fly(Throw{SpeedMS: 5, HeightM: 6}, Room{}, nil)
	if f.Mode != Tumble && f.Mode != Flutter {
		t.Errorf("thrown, it is %s", f.Mode)
	}
}

func BenchmarkCoefficients(b *testing.B) {
	p := pattern(b, "curlew")
	r := p.Run(a4, nil)
	b.ReportAllocs()
	for b.Loop() {
		g, _ := craft.Of(r)
		NewModel(g.Shape, g.Weight, air.Bends{})
	}
}

func BenchmarkNewCurl(b *testing.B) {
	g, bends := toy(b, "curlew", a4, nil)
	b.ReportAllocs()
	for b.Loop() {
		bends.CurlLeft += 1e-6
		NewModel(g.Shape, g.Weight, bends)
	}
}
