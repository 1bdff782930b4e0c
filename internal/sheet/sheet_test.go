package sheet_test

import (
	"errors"
	"math"
	"testing"

	"tussock/internal/given"
	"tussock/internal/sheet"
)

func TestNewRefusesWhatNoSheetIs(t *testing.T) {
	for _, c := range []struct {
		w, h, gsm, thick float64
		field            string
	}{
		{19, 297, 80, 0.1, "width_mm"}, {210, 2001, 80, 0.1, "height_mm"}, {210, 297, 9, 0.1, "gsm"},
		{210, 297, 80, 0, "thickness_mm"}, {math.NaN(), 297, 80, 0.1, "width_mm"},
		{210, math.Inf(1), 80, 0.1, "height_mm"}, {210, 297, -80, 0.1, "gsm"}, {210, 297, 80, math.NaN(), "thickness_mm"},
	} {
		_, err := sheet.New(c.w, c.h, c.gsm, c.thick)
		var fe *given.Error
		if !errors.As(err, &fe) || fe.Field != c.field || fe.Want == "" {
			t.Errorf("%v gives %v, want a refusal of %s", c, err, c.field)
		}
	}
	s, err := sheet.New(210, 297, 80, 0.1)
	if err != nil {
		t.Fatal(err)
	}
	// A4 at 80 g/m² weighs 4.99 g: a sixteenth of a square metre times 80.
	if math.Abs(s.MassG()-4.9896) > 1e-12 || math.Abs(s.MassG()-80.0/16) > 0.02 {
		t.Errorf("A4 weighs %v g", s.MassG())
	}
	if math.Abs(s.Outline().Area()-s.AreaMM2()) > 1e-9 {
		t.Error("outline and area differ")
	}
}

func TestParseSize(t *testing.T) {
	for _, c := range []struct {
		text string
		w, h float64
	}{
		{"210x297", 210, 297}, {"210 x 297 mm", 210, 297}, {"21x29.7cm", 210, 297}, {"8.5x11in", 215.9, 279.4},
		{"8.5×11 in", 215.9, 279.4}, {"A4", 210, 297}, {"letter", 215.9, 279.4}, {"6 in square", 152.4, 152.4},
	} {
		w, h, err := sheet.ParseSize(c.text)
		if err != nil || math.Abs(w-c.w) > 1e-9 || math.Abs(h-c.h) > 1e-9 {
			t.Errorf("%q is %v x %v (%v), want %v x %v", c.text, w, h, err, c.w, c.h)
		}
	}
	for _, text := range []string{"", "210", "210x", "axb", "210x297 ell", "x"} {
		if _, _, err := sheet.ParseSize(text); err == nil {
			t.Errorf("%q is taken for a size", text)
		}
	}
	if w, err := sheet.ToMM(8.5, "in"); err != nil || w != 215.9 {
		t.Errorf("8.5 in is %v mm (%v)", w, err)
	}
	if _, err := sheet.ToMM(1, "ell"); err == nil {
		t.Error("an ell is taken for a unit")
	}
}

func TestNames(t *testing.T) {
	if n := sheet.NameOf(215.9, 279.4); n != "Letter" {
		t.Errorf("letter is called %q", n)
	}
	if n := sheet.NameOf(297, 210); n != "" {
		t.Errorf("A4 on its side is called %q", n)
	}
	for v, want := range map[float64]string{12: "12", 0.1: "0.1", -3.25: "-3.25", 1.0 / 3: "0.333", -0.0001: "0", math.Inf(1): "+Inf"} {
		if got := sheet.Number(v); got != want {
			t.Errorf("%v is written %q, want %q", v, got, want)
		}
	}
}
