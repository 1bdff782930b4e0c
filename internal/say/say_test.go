package say_test

import (
	_ "embed"
	"encoding/json"
	"math"
	"strconv"
	"strings"
	"testing"

	"tussock/internal/say"
)

//go:embed cases.json
var cases []byte

// The cases that the page's formatter is tested with as well.
func TestCases(t *testing.T) {
	var all []struct{ Text, MM, In string }
	if err := json.Unmarshal(cases, &all); err != nil || len(all) < 10 {
		t.Fatal(len(all), err)
	}
	for _, c := range all {
		if got := say.Plain(c.Text); got != c.MM {
			t.Errorf("%s: %q, want %q", c.Text, got, c.MM)
		}
		if got := say.In(say.Inch, c.Text); got != c.In {
			t.Errorf("%s: %q, want %q", c.Text, got, c.In)
		}
	}
}

// What is made is what is read: every quantity comes back in millimetres with the value
// it was given, and in inches within half of the last step that is shown.
func TestQuantitiesComeBack(t *testing.T) {
	for v := 0.05; v < 3000; v *= 1.07 {
		mm := say.Plain(say.MM(v, 2))
		if n, err := strconv.ParseFloat(strings.TrimSuffix(mm, " mm"), 64); err != nil || math.Abs(n-v) > 0.006 {
			t.Fatalf("%v is shown as %q", v, mm)
		}
		in := strings.TrimSuffix(say.In(say.Inch, say.MM(v, 0)), " in")
		if strings.Contains(in, "hair") {
			if v >= 0.8 {
				t.Errorf("%v is %q", v, in)
			}
			continue
		}
		back, step := 0.0, 1.0/16
		for _, p := range strings.Fields(in) {
			if top, bottom, ok := strings.Cut(p, "/"); ok {
				a, _ := strconv.ParseFloat(top, 64)
				b, _ := strconv.ParseFloat(bottom, 64)
				back += a / b
				continue
			}
			if strings.Contains(p, ".") {
				step = 0.01
			}
			f, err := strconv.ParseFloat(p, 64)
			if err != nil {
				t.Fatal(in)
			}
			back += f
		}
		if math.Abs(back*say.MMPerInch-v) > 0.51*step*say.MMPerInch {
			t.Errorf("%v mm is shown as %q, which is %v mm", v, in, back*say.MMPerInch)
		}
	}
	for _, v := range []float64{-0.04, 0, math.Copysign(0, -1)} {
		for _, u := range []say.Units{say.Metric, say.Inch} {
			if got := say.Length(u, v, 1); strings.Contains(got, "−0 ") || strings.Contains(got, "-") || u == say.Metric && got != "0 mm" {
				t.Errorf("%v is %q", v, got)
			}
		}
	}
}

func TestProse(t *testing.T) {
	for text, want := range map[string]string{
		"Fold 12 mm from the edge, 3 to 5 mm apart.": "Fold 1/2 in from the edge, 1/8 to 3/16 in apart.",
		"Cut 210 × 99 mm":                            "Cut 8 1/4 × 3 7/8 in",
		"1.5 mm and 7 mmm":                           "0.06 in and 7 mmm",
		"no length":                                  "no length",
	} {
		if got := say.In(say.Inch, say.Prose(text)); got != want {
			t.Errorf("%q, want %q", got, want)
		}
		if got := say.Plain(say.Prose(text)); got != text {
			t.Errorf("%q came back as %q", text, got)
		}
	}
}
