package sheet_test

import (
	"errors"
	"math"
	"testing"

	"tussock/internal/geom"
	"tussock/internal/given"
	"tussock/internal/sheet"
)

func TestNGons(t *testing.T) {
	for n := 3; n <= 8; n++ {
		s, err := sheet.NGon(n, 60, 80, 0.1)
		if err != nil {
			t.Fatal(err)
		}
		want := float64(n) * 60 * 60 / (4 * math.Tan(math.Pi/float64(n)))
		if math.Abs(s.AreaMM2()-want) > 1e-6 {
			t.Errorf("%d-gon: %v mm², want %v", n, s.AreaMM2(), want)
		}
		o := s.Outline()
		if math.Abs(o[0].Y-o[1].Y) > 1e-9 || math.Abs(o[0].Y) > 1e-9 {
			t.Errorf("%d-gon: its lowest side runs from %v to %v", n, o[0], o[1])
		}
		f, err := s.Fitted(200, 300, 90, 0.1)
		if err != nil {
			t.Fatal(err)
		}
		if f.WidthMM > 200+1e-9 || f.HeightMM > 300+1e-9 || math.Abs(f.WidthMM-200) > 1e-9 && math.Abs(f.HeightMM-300) > 1e-9 {
			t.Errorf("%d-gon fitted into 200 x 300 is %v x %v", n, f.WidthMM, f.HeightMM)
		}
	}
}

func TestFreeOutlines(t *testing.T) {
	l := []geom.Vec{{X: 10, Y: 10}, {X: 110, Y: 10}, {X: 110, Y: 60}, {X: 60, Y: 60}, {X: 60, Y: 110}, {X: 10, Y: 110}}
	s, err := sheet.Polygon(l, 80, 0.1)
	if err != nil {
		t.Fatal(err)
	}
	if s.WidthMM != 100 || s.HeightMM != 100 || math.Abs(s.AreaMM2()-7500) > 1e-9 {
		t.Errorf("%v x %v, %v mm²", s.WidthMM, s.HeightMM, s.AreaMM2())
	}
	var area float64
	for _, p := range s.Pieces() {
		area += p.Area()
	}
	if len(s.Pieces()) < 2 || math.Abs(area-7500) > 1e-9 || len(s.Joins()) != len(s.Pieces())-1 {
		t.Errorf("%d pieces of %v mm², %d joins", len(s.Pieces()), area, len(s.Joins()))
	}
	for name, pts := range map[string][]geom.Vec{
		"two corners":   {{X: 0}, {X: 100}},
		"bow tie":       {{}, {X: 100, Y: 100}, {X: 100}, {Y: 100}},
		"twice a spot":  {{}, {X: 0.1}, {X: 100}, {Y: 100}},
		"not a number":  {{X: math.NaN()}, {X: 100}, {Y: 100}},
		"far too large": {{}, {X: 1e5}, {Y: 1e5}},
		"far too small": {{}, {X: 2}, {Y: 2}},
	} {
		var fe *given.Error
		if _, err := sheet.Polygon(pts, 80, 0.1); !errors.As(err, &fe) {
			t.Errorf("%s: %v", name, err)
		}
	}
	for _, bad := range [][2]float64{{2, 60}, {9, 60}, {5, -1}, {5, 1e6}} {
		if _, err := sheet.NGon(int(bad[0]), bad[1], 80, 0.1); err == nil {
			t.Errorf("a %v-gon of side %v is made", bad[0], bad[1])
		}
	}
}

func TestMargins(t *testing.T) {
	s, _ := sheet.New(216, 279, 80, 0.1)
	m, err := s.Margin(6, 0, 0, 9)
	if err != nil || m.WidthMM != 210 || m.HeightMM != 270 {
		t.Errorf("%v (%v)", m, err)
	}
	for _, v := range []float64{-1, 300, math.NaN()} {
		if _, err := s.Margin(v, 0, 0, 0); err == nil {
			t.Errorf("a margin of %v comes off", v)
		}
	}
	hex, _ := sheet.NGon(6, 60, 80, 0.1)
	if _, err := hex.Margin(1, 0, 0, 0); err == nil {
		t.Error("a margin comes off a hexagon")
	}
}
