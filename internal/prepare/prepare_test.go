package prepare

import (
	"errors"
	"math"
	"strings"
	"testing"

	"tussock/internal/geom"
	"tussock/internal/say"
	"tussock/internal/sheet"
)

var (
	a4     = sheet.Sheet{WidthMM: 210, HeightMM: 297, GSM: 80, ThicknessMM: 0.1}
	letter = sheet.Sheet{WidthMM: 215.9, HeightMM: 279.4, GSM: 75, ThicknessMM: 0.1}
)

func ways(t *testing.T, s sheet.Sheet, w Want, cutFree bool) []Route {
	t.Helper()
	all, err := Ways(s, w, cutFree)
	if err != nil {
		t.Fatal(err)
	}
	for _, r := range all {
		// Nothing is lost: the piece, what is worth keeping and the scraps are the sheet.
		area := r.Piece.AreaMM2() + r.ScrapMM2
		for _, l := range r.Leftovers {
			area += l.WidthMM * l.HeightMM
		}
		if math.Abs(area-s.WidthMM*s.HeightMM) > 0.5 {
			t.Errorf("%s: %v mm² come out of %v", r.ID, area, s.WidthMM*s.HeightMM)
		}
		if len(r.Steps) > 0 && (r.Minutes <= 0 || r.ErrorMM < 0.3) {
			t.Errorf("%s takes %v minutes and errs by %v mm", r.ID, r.Minutes, r.ErrorMM)
		}
		for _, d := range r.Steps {
			if d.Say == "" || len(strings.Fields(d.Say)) > 30 {
				t.Errorf("%s, step %d says %q", r.ID, d.No, d.Say)
			}
			if d.Op == "cut" && cutFree {
				t.Errorf("%s cuts", r.ID)
			}
		}
	}
	return all
}

func find(t *testing.T, all []Route, id string) Route {
	t.Helper()
	for _, r := range all {
		if r.ID == id {
			return r
		}
	}
	t.Fatalf("no way %s", id)
	return Route{}
}

func TestSquaring(t *testing.T) {
	for _, c := range []struct {
		s          sheet.Sheet
		side, left float64
	}{{a4, 210, 87}, {letter, 215.9, 63.5}} {
		all := ways(t, c.s, Want{Kind: Square}, false)
		if len(all) != 4 || all[0].ID != "square-cut" {
			t.Fatalf("%d ways, first %s", len(all), all[0].ID)
		}
		for _, r := range all {
			if math.Abs(r.Piece.WidthMM-c.side) > 1e-6 || math.Abs(r.Piece.HeightMM-c.side) > 1e-6 || r.Piece.Shape != nil {
				t.Errorf("%s gives %v × %v", r.ID, r.Piece.WidthMM, r.Piece.HeightMM)
			}
			if len(r.Leftovers) != 1 || math.Abs(r.Leftovers[0].WidthMM-c.left) > 1e-6 || math.Abs(r.Leftovers[0].HeightMM-c.side) > 1e-6 {
				t.Errorf("%s leaves %v", r.ID, r.Leftovers)
			}
			// The diagonal is made; doubled, both are.
			for _, h := range r.Creases {
				if d := math.Abs(h.A.X - h.A.Y); r.ID != "square-doubled" && d > 1e-6 {
					t.Errorf("%s leaves a crease at %v", r.ID, h)
				}
			}
			length := 0.0
			for _, h := range r.Creases {
				length += h.Len()
			}
			want := c.side * math.Sqrt2
			if r.ID == "square-doubled" {
				want *= 2
			}
			if math.Abs(length-want) > 1e-6 {
				t.Errorf("%s leaves %v mm of creases, not %v", r.ID, length, want)
			}
		}
		// Each fold and each cut adds its error; doubling adds a fold and creep.
		one, two := find(t, all, "square-cut"), find(t, all, "square-doubled")
		if math.Abs(one.ErrorMM-math.Hypot(0.3, 0.3)) > 1e-9 || two.ErrorMM <= one.ErrorMM {
			t.Errorf("errors %v and %v", one.ErrorMM, two.ErrorMM)
		}
		if free := ways(t, c.s, Want{Kind: Square}, true); len(free) != 2 {
			t.Errorf("%d ways without scissors", len(free))
		}
	}
	// A sheet that lies across is turned; a square one needs nothing.
	lying := sheet.Sheet{WidthMM: 297, HeightMM: 210, GSM: 80, ThicknessMM: 0.1}
	if r := ways(t, lying, Want{Kind: Square}, false)[0]; !r.Turned || math.Abs(r.Piece.WidthMM-210) > 1e-6 {
		t.Errorf("%+v", r.Piece)
	}
	square := sheet.Sheet{WidthMM: 150, HeightMM: 150, GSM: 60, ThicknessMM: 0.08}
	if r := ways(t, square, Want{Kind: Square}, false); len(r) != 1 || len(r[0].Steps) != 0 {
		t.Errorf("a square sheet: %d ways", len(r))
	}
}

func TestOtherOfficeStandard(t *testing.T) {
	_, err := Ways(a4, Want{Kind: Size, WidthMM: 215.9, HeightMM: 279.4}, false)
	var no *Impossible
	if !errors.As(err, &no) || !strings.Contains(say.Plain(no.Why), "215.9 mm wide, and there are 210 mm") {
		t.Fatalf("%v", err)
	}
	for _, c := range []struct {
		s       sheet.Sheet
		w, h    float64
		x, y    float64
		off     float64
		impWide bool
	}{{a4, 215.9, 279.4, 210, 271.76, 25.24, true}, {letter, 210, 297, 197.56, 279.4, 18.34, false}} {
		_, err := Ways(c.s, Want{Kind: Size, WidthMM: c.w, HeightMM: c.h}, false)
		if !errors.As(err, &no) || math.Abs(no.Instead.WidthMM-c.x) > 0.005 || math.Abs(no.Instead.HeightMM-c.y) > 0.005 {
			t.Fatalf("%v: %+v", err, no)
		}
		if strings.Contains(no.Why, "wide, and") != c.impWide {
			t.Error(no.Why)
		}
		// What is offered instead can be had, as a size and as a ratio.
		for _, w := range []Want{no.Instead, {Kind: Ratio, Ratio: c.h / c.w}} {
			r := ways(t, c.s, w, false)[0]
			if math.Abs(r.Piece.WidthMM-c.x) > 0.005 || math.Abs(r.Piece.HeightMM-c.y) > 0.005 || len(r.Leftovers) != 1 || math.Abs(r.Leftovers[0].WidthMM-c.off) > 0.005 {
				t.Errorf("%v × %v and %v", r.Piece.WidthMM, r.Piece.HeightMM, r.Leftovers)
			}
		}
	}
}

func TestHalvesStripsAndMargins(t *testing.T) {
	all := ways(t, a4, Want{Kind: Half}, false)
	if r := find(t, all, "half-along-tear"); math.Abs(r.Piece.WidthMM-105) > 1e-6 || math.Abs(r.Leftovers[0].WidthMM-105) > 1e-6 {
		t.Errorf("%+v", r.Piece)
	}
	if r := find(t, all, "half-across-cut"); math.Abs(r.Piece.HeightMM-148.5) > 1e-6 {
		t.Errorf("%+v", r.Piece)
	}
	if r := ways(t, a4, Want{Kind: Strip, WidthMM: 34}, true)[0]; math.Abs(r.Piece.WidthMM-34) > 1e-6 || math.Abs(r.Leftovers[0].WidthMM-176) > 1e-6 {
		t.Errorf("%+v", r)
	}
	if r := ways(t, letter, Want{Kind: Margin, LeftMM: 12.7, TopMM: 6}, true)[0]; math.Abs(r.Piece.WidthMM-203.2) > 1e-6 || math.Abs(r.Piece.HeightMM-273.4) > 1e-6 || r.ScrapMM2 < 1000 {
		t.Errorf("%+v", r.Piece)
	}
	if r := ways(t, a4, Want{Kind: Size, WidthMM: 150, HeightMM: 100}, false)[0]; math.Abs(r.Piece.WidthMM-100) > 1e-6 || math.Abs(r.Piece.HeightMM-150) > 1e-6 {
		t.Errorf("%+v", r.Piece)
	}
}

// What folding makes of an n-gon is judged by the piece that comes out.
func TestNGons(t *testing.T) {
	square := sheet.Sheet{WidthMM: 150, HeightMM: 150, GSM: 60, ThicknessMM: 0.08}
	for _, n := range []int{3, 5, 6, 8} {
		for _, r := range ways(t, square, Want{Kind: NGon, N: n}, false) {
			if r.Piece.Shape == nil || len(r.Piece.Shape.Corners) != n {
				t.Errorf("%s: %d corners", r.ID, len(r.Piece.Outline()))
				continue
			}
			exact := r.Regular.OffMM < 1e-6 && r.Regular.OffDeg < 1e-6
			if exact == (r.ID == "pentagon-custom") {
				t.Errorf("%s: off by %v mm, %v°", r.ID, r.Regular.OffMM, r.Regular.OffDeg)
			}
			most, _ := Largest(n, square)
			if r.Regular.SideMM > most+1e-6 || r.Regular.SideMM < 0.7*most {
				t.Errorf("%s: side %v of at most %v", r.ID, r.Regular.SideMM, most)
			}
		}
	}
	custom := find(t, ways(t, square, Want{Kind: NGon, N: 5}, false), "pentagon-custom")
	dir := custom.Steps[1].Line.Dir()
	if deg := geom.Deg(math.Atan(math.Abs(dir.Y / dir.X))); math.Abs(deg-71.565/2) > 0.005 {
		t.Errorf("half of the first fan of the customary mark has %v°", deg)
	}
	// From an office sheet the square comes first.
	if r := ways(t, a4, Want{Kind: NGon, N: 6}, false)[0]; len(r.Runs) != 2 || len(r.Leftovers) != 1 {
		t.Errorf("%d runs, %v", len(r.Runs), r.Leftovers)
	}
	for n, want := range map[int]float64{3: 1.035276, 4: 1, 5: 0.625738} {
		if side, _ := Largest(n, sheet.Sheet{WidthMM: 1, HeightMM: 1}); math.Abs(side-want) > 2e-4 {
			t.Errorf("the largest %d-gon in a square has side %v, not %v", n, side, want)
		}
	}
	if _, tilt := Largest(5, sheet.Sheet{WidthMM: 1, HeightMM: 1}); math.Abs(math.Mod(tilt, 18)-9) > 0.2 {
		t.Errorf("tilt %v", tilt)
	}
	if all := ways(t, square, Want{Kind: NGon, N: 7}, false); len(all) != 0 {
		t.Errorf("%d ways to seven corners", len(all))
	}
}

func TestWhatCannotBe(t *testing.T) {
	for _, c := range []struct {
		w    Want
		says string
	}{
		{Want{Kind: Square, WidthMM: -3}, "20 mm or more"},
		{Want{Kind: Square, WidthMM: 211}, "The largest square has 210 mm"},
		{Want{Kind: Strip, WidthMM: 400}, "its short edge is 210 mm"},
		{Want{Kind: NGon, N: 9}, "3 to 8 corners"},
		{Want{Kind: Ratio, Ratio: math.NaN()}, "0.1 to 10"},
		{Want{Kind: Size, WidthMM: 5, HeightMM: 100}, "20 to 2000 mm"},
		{Want{Kind: Margin}, "for at least one edge"},
		{Want{Kind: Margin, LeftMM: 195}, "at least 20 mm each way"},
		{Want{Kind: "round"}, "one of"},
	} {
		if _, err := Ways(a4, c.w, false); err == nil || !strings.Contains(say.Plain(err.Error()), c.says) {
			t.Errorf("%+v: %v", c.w, err)
		}
	}
	if _, err := Ways(sheet.Sheet{WidthMM: 30, HeightMM: 35, GSM: 80, ThicknessMM: 0.1}, Want{Kind: Half}, false); err == nil {
		t.Error("half of nearly nothing")
	}
}

func BenchmarkWays(b *testing.B) {
	for b.Loop() {
		if _, err := Ways(a4, Want{Kind: Square}, false); err != nil {
			b.Fatal(err)
		}
	}
}

// Every size that a sheet holds comes out of it, small ones too, of both orders of its sides.
func TestEverySizeComesOut(t *testing.T) {
	for _, have := range [][2]float64{{210, 297}, {215.9, 279.4}, {150, 150}} {
		s, err := sheet.New(have[0], have[1], sheet.PlainGSM, sheet.PlainThicknessMM)
		if err != nil {
			t.Fatal(err)
		}
		for w := 20.0; w <= have[0]; w += 13 {
			for h := 20.0; h <= have[0]; h += 13 {
				routes, err := Ways(s, Want{Kind: Size, WidthMM: w, HeightMM: h}, false)
				if err != nil || len(routes) == 0 {
					t.Fatalf("%g × %g from %v: %d ways, %v", w, h, have, len(routes), err)
				}
				for _, r := range routes {
					if math.Abs(r.Piece.WidthMM-min(w, h)) > 1e-6 || math.Abs(r.Piece.HeightMM-max(w, h)) > 1e-6 {
						t.Errorf("%s of %g × %g gives %g × %g", r.ID, w, h, r.Piece.WidthMM, r.Piece.HeightMM)
					}
				}
			}
		}
	}
}

// Margins come off whatever their widths, as long as a sheet is left.
func TestEveryMarginComesOff(t *testing.T) {
	s, err := sheet.New(210, 297, sheet.PlainGSM, sheet.PlainThicknessMM)
	if err != nil {
		t.Fatal(err)
	}
	wide := []float64{0, 5, 60, 120, 180}
	done := 0
	for _, l := range wide {
		for _, r := range wide {
			for _, b := range wide {
				for _, u := range wide {
					w, h := 210-l-r, 297-b-u
					if l+r+b+u == 0 || w < 20 || h < 20 {
						continue
					}
					done++
					routes, err := Ways(s, Want{Kind: Margin, LeftMM: l, RightMM: r, BottomMM: b, TopMM: u}, false)
					if err != nil || len(routes) != 2 {
						t.Fatalf("%g, %g, %g, %g off: %d ways, %v", l, r, b, u, len(routes), err)
					}
					for _, q := range routes {
						if math.Abs(q.Piece.WidthMM-w) > 1e-6 || math.Abs(q.Piece.HeightMM-h) > 1e-6 {
							t.Errorf("%g, %g, %g, %g off leave %g × %g", l, r, b, u, q.Piece.WidthMM, q.Piece.HeightMM)
						}
					}
				}
			}
		}
	}
	if done < 100 {
		t.Errorf("%d margins tried", done)
	}
}
