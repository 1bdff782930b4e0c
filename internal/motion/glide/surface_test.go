package glide

import (
	"math"
	"testing"

	"tussock/internal/body"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
	"tussock/internal/shelf"
)

func balance(t *testing.T, id string, s sheet.Sheet, knobs map[string]float64) (Balance, body.Glider, *sequence.Replay) {
	t.Helper()
	p, _ := shelf.Find(id)
	r := p.Run(s, knobs)
	if r.Err != nil {
		t.Fatal(r.Err)
	}
	pose := body.Standing(r)
	b, ok := BalanceOf(r, pose)
	if !ok {
		t.Fatalf("%s is no glider", id)
	}
	g, _ := body.MeasureGlider(r, pose)
	return b, g, r
}

var a4 = sheet.Sheet{WidthMM: 210, HeightMM: 297, GSM: 80, ThicknessMM: 0.1}

// The strips hold the wing: their area is the wing's, measured from its pieces, and the
// neutral point lies on it.
func TestStripsHoldTheWing(t *testing.T) {
	for _, id := range []string{"curlew", "shelduck"} {
		p, _ := shelf.Find(id)
		for _, v := range []float64{90, 75} {
			r := p.Run(a4, map[string]float64{"wing": v})
			pose := body.Standing(r)
			g, _ := body.MeasureGlider(r, pose)
			area := 0.0
			for w := 1; w <= len(r.Wings); w++ {
				half, ok := halfWing(pose, g.Frame, w)
				if !ok {
					t.Fatalf("%s: no wing %d", id, w)
				}
				for _, s := range half {
					area += s.Chord() * s.Width() * 1e6
				}
			}
			if math.Abs(area-g.WingAreaMM2) > 0.06*g.WingAreaMM2 {
				t.Errorf("%s, wings at %v°: strips of %.0f mm², a wing of %.0f", id, v, area, g.WingAreaMM2)
			}
			b, _ := BalanceOf(r, pose)
			if b.NeutralAftMM < 0 || b.NeutralAftMM > g.LengthMM || b.CNa < 0.5 || b.CNa > 4 || b.LoadingNM2 < 1 || b.LoadingNM2 > 5 {
				t.Errorf("%s: %+v", id, b)
			}
		}
	}
}

// A pointed glider: little span, lift far aft, about neutral. The slender limit pi AR/2
// bounds its lift from above.
func TestPointedGliderIsSlender(t *testing.T) {
	b, _, _ := balance(t, "curlew", a4, nil)
	if b.AspectRatio > 1.2 || b.CNa > math.Pi*b.AspectRatio/2 || b.CNa < 0.75*math.Pi*b.AspectRatio/2 {
		t.Errorf("%+v", b)
	}
	if math.Abs(b.Margin) > 0.15 {
		t.Errorf("its margin is %v", b.Margin)
	}
}

// Scale leaves the coefficients; a heavier paper loads the wing and leaves the rest; a V
// gives lift away; left and right count alike.
func TestBalanceFollowsTheToy(t *testing.T) {
	base, _, _ := balance(t, "curlew", a4, nil)
	half := a4
	half.WidthMM, half.HeightMM = a4.WidthMM/2, a4.HeightMM/2
	small, _, _ := balance(t, "curlew", half, nil)
	near(t, "lift of a small one", small.CNa, base.CNa, 1e-6)
	near(t, "its neutral point", small.NeutralAftMM, base.NeutralAftMM/2, 1e-6)
	near(t, "its margin", small.Margin, base.Margin, 1e-6)
	heavy := a4
	heavy.GSM = 120
	h, _, _ := balance(t, "curlew", heavy, nil)
	near(t, "the loading of a heavy one", h.LoadingNM2, 1.5*base.LoadingNM2, 1e-9)
	near(t, "its lift", h.CNa, base.CNa, 1e-9)
	v, _, _ := balance(t, "curlew", a4, map[string]float64{"wing": 60})
	if v.CNa >= base.CNa {
		t.Errorf("with a V of 30° it lifts %v, level %v", v.CNa, base.CNa)
	}
	p, _ := shelf.Find("fortune")
	r := p.Run(sheet.Sheet{WidthMM: 150, HeightMM: 150, GSM: 80, ThicknessMM: 0.1}, nil)
	if _, ok := BalanceOf(r, body.Standing(r)); ok {
		t.Error("a fortune teller glides")
	}
}

// Weight at the nose moves the centre of mass forward and makes the margin larger, and
// leaves the neutral point where it is.
func TestNoseWeightAddsMargin(t *testing.T) {
	p, _ := shelf.Find("curlew")
	r := p.Run(a4, nil)
	pose := body.Standing(r)
	g, _ := body.MeasureGlider(r, pose)
	bare, _ := BalanceOf(r, pose)
	last := bare
	for _, grams := range []float64{0.1, 0.2, 0.5} {
		pose.Loads = []body.Load{{At: g.Frame.Nose, G: grams}}
		b, _ := BalanceOf(r, pose)
		if b.Margin <= last.Margin || math.Abs(b.NeutralAftMM-bare.NeutralAftMM) > 0.2 {
			t.Errorf("%v g: margin %v after %v, neutral point %v after %v", grams, b.Margin, last.Margin, b.NeutralAftMM, bare.NeutralAftMM)
		}
		last = b
	}
}

func TestSteadinessByTheBand(t *testing.T) {
	for m, want := range map[float64]Steadiness{0.1: Steady, 0.029: Unsure, 0: Unsure, -0.029: Unsure, -0.05: TailHeavy} {
		if got := (Balance{Margin: m, MarginBy: neutralBy}).Steadiness(); got != want {
			t.Errorf("a margin of %v is %s", m, got)
		}
	}
}

func BenchmarkBalance(b *testing.B) {
	p, _ := shelf.Find("curlew")
	r := p.Run(a4, nil)
	pose := body.Standing(r)
	b.ReportAllocs()
	for b.Loop() {
		BalanceOf(r, pose)
	}
}
