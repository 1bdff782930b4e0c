package sequence_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"tussock/internal/fold"
	"tussock/internal/say"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
	"tussock/internal/ways"
)

// landed is where the point P of a pattern lies on the sheet, whose height is written in.
func landed(t *testing.T, number string, w, h float64, knobs map[string]float64) (float64, error) {
	t.Helper()
	text := "sheet square 100\nknob k \"A knob\" = 3 from 0 to 50\nparam sixth = width/6\npoint P = sheet(0, " + number + ")\ncrease through BL TR\n"
	p, err := ways.Parse("t", text)
	if err != nil {
		t.Fatalf("%s: %v", number, err)
	}
	r := p.Run(sheet.Sheet{WidthMM: w, HeightMM: h, GSM: 80, ThicknessMM: 0.1}, knobs)
	return r.Landmarks["P"].Y, r.Err
}

// Arithmetic is read as it is written everywhere: products before sums, from the left,
// brackets first; a minus is a sign or takes away, by where it stands.
func TestArithmetic(t *testing.T) {
	for number, want := range map[string]float64{
		"1+2*3": 7, "1 + 2*3": 7, "(1+2)*3": 9, "10-4-3": 3, "10 - 4 - 3": 3, "24/4/2": 3, "1/3": 1.0 / 3, "2*1/4": 0.5, "2 × 3 ÷ 4": 1.5, "9 − 5": 4,
		"-(2) + 5": 3, "8 - -3": 11, "k*2": 6, "k-1": 2, "-k + 4": 1, "max(1, k, 2)": 3, "min(4,2*k,9)": 4, "abs(k - 10)": 7, "sqrt(16)": 4, "sin(30)*10": 5, "cos(60)": 0.5,
		"tan(45)": 1, "asin(0.5)": 30, "acos(0.5)": 60, "atan(1)": 45, "atan2(1, 1)/3": 15, "width/4": 25, "height": 100, "thickness*10": 1, "sixth*3": 50,
		"dist(BL, TR)/sqrt(2)": 100, "dist(BL,C)": math.Hypot(50, 50), "((((5))))": 5,
	} {
		if got, err := landed(t, number, 100, 100, nil); err != nil || math.Abs(got-want) > 1e-9 {
			t.Errorf("%s: %v (%v), want %v", number, got, err, want)
		}
	}
	// It follows the knobs and the sheet at hand.
	if got, err := landed(t, "k*sixth", 60, 120, map[string]float64{"k": 5}); err != nil || got != 50 {
		t.Errorf("on another sheet %v, %v", got, err)
	}
	// What has no result stops the replay at its line, with words.
	for _, number := range []string{"10/(k-3)", "sqrt(k-4)", "asin(k)", "tan(30*k)", "1/0*k"} {
		_, err := landed(t, number, 100, 100, nil)
		if e := fold.As(err); e == nil || e.Code != fold.CodeKnob || e.Line != 4 || !strings.Contains(e.Detail, "no result") {
			t.Errorf("%s: %v", number, err)
		}
	}
}

// Random sums, products and brackets against Go's own arithmetic of the same tree.
func TestArithmeticAgainstTrees(t *testing.T) {
	random := rand.New(rand.NewPCG(3, 14))
	var tree func(depth int) (string, float64)
	tree = func(depth int) (string, float64) {
		if depth == 0 || random.IntN(4) == 0 {
			v := float64(1 + random.IntN(9))
			return fmt.Sprint(v), v
		}
		a, x := tree(depth - 1)
		b, y := tree(depth - 1)
		switch random.IntN(4) {
		case 0:
			return "(" + a + "+" + b + ")", x + y
		case 1:
			return "(" + a + " - " + b + ")", x - y
		case 2:
			return a + "*" + b, x * y
		}
		return "(" + a + ")/(" + b + ")", x / y
	}
	tried := 0
	for range 400 {
		text, want := tree(4)
		if math.IsNaN(want) || math.Abs(want) > 1e4 || math.IsInf(want, 0) {
			continue
		}
		p, err := ways.Parse("t", "sheet square 100\nparam v = "+text+"\npoint P = sheet(0, v)\ncrease through BL TR\n")
		if err != nil {
			if strings.Contains(text, "/(") { // a divisor may be nothing
				continue
			}
			t.Fatalf("%s: %v", text, err)
		}
		if i := p.KnobIndex("v"); i < 0 || math.Abs(p.Knobs[i].Default-want) > 1e-9*math.Max(1, math.Abs(want)) {
			t.Fatalf("%s is read as %+v, want %v", text, p.Knobs, want)
		}
		tried++
	}
	if tried < 200 {
		t.Errorf("only %d were tried", tried)
	}
}

// What people write by mistake is named with what to write: decimal commas, units, names
// that are not there, functions with too many numbers.
func TestArithmeticRefused(t *testing.T) {
	for text, words := range map[string][]string{
		"param a = 12,5":                             {"2:11", "\"12,5\"", "write 12.5"},
		"param a = 30mm":                             {"2:11", "30mm", "write 30"},
		"param a = 3cm":                              {"2:11", "3cm", "write 30"},
		"param a = 2in":                              {"2:11", "2in", "write 50.8"},
		"param a = 45deg":                            {"2:11", "write 45"},
		"param a = 1 +":                              {"2:14", "the end of the line"},
		"param a = (1":                               {"2:13", ")"},
		"param a = b*2":                              {"2:11", "nothing is called \"b\""},
		"param a = a + 1":                            {"2:11", "\"a\""},
		"param a = sin(1, 2)":                        {"2:11", "2 numbers", "give it 1"},
		"param a = dist(BL, TR)/2":                   {"2:11", "before anything is folded"},
		"knob a \"A\" = width/2 from 1 to 9":         {"2:14", "depends on nothing"},
		"param a = sqrt(-1)":                         {"2:11", "not a number"},
		"param a = " + strings.Repeat("(", 60) + "1": {"nested"},
	} {
		_, err := ways.Parse("t", "sheet square 100\n"+text+"\ncrease through BL TR\n")
		for _, w := range words {
			if err == nil || !strings.Contains(err.Error(), w) {
				t.Errorf("%q: %v, without %q", text, err, w)
			}
		}
	}
}

// A number that depends on a knob belongs to the steps that use it, and moving the knob
// folds anew from there, as a run from the start does.
func TestDerivedNumbersBelongToSteps(t *testing.T) {
	p, err := ways.Parse("t", "sheet square 100\nknob k \"A knob\" = 10 mm from 5 to 20\nparam twice = 2*k\ncrease bring left to right as m\nvalley along par(left, twice, C) moving TL as f\n")
	if err != nil {
		t.Fatal(err)
	}
	if steps := p.Knobs[p.KnobIndex("k")].Steps; len(steps) != 1 || steps[0] != 2 {
		t.Errorf("the knob belongs to steps %v", steps)
	}
	s := sheet.Sheet{WidthMM: 100, HeightMM: 100, GSM: 80, ThicknessMM: 0.1}
	first := p.Run(s, nil)
	again, anew := p.Rerun(first, s, map[string]float64{"k": 15}), p.Run(s, map[string]float64{"k": 15})
	for _, r := range []*sequence.Replay{first, again, anew} {
		if r.Err != nil {
			t.Fatal(r.Err)
		}
	}
	if a, b := again.Final().Box(), anew.Final().Box(); a != b || a == first.Final().Box() {
		t.Errorf("%+v, from the start %+v, before %+v", a, b, first.Final().Box())
	}
}

// Words made for a landmark tell no number that another sheet or knob would change.
func TestMadeWordsTellNoNumberThatVaries(t *testing.T) {
	p, err := ways.Parse("t", "sheet square 100\nknob k \"A knob\" = 10 mm from 5 to 20\nparam twice = 2*k\npoint A = sheet(30, 20)\npoint Q = sheet(twice, 20)\npoint U = sheet(width/2, dist(BL, TR))\npoint S = mid(BL, sheet(k, k))\ncrease through A C as m\n")
	if err != nil {
		t.Fatal(err)
	}
	for name, want := range map[string]string{
		"A": "the spot 30 mm from the left and 20 mm from below", "Q": "the mark for step 1", "U": "the mark for step 1",
		"S": "the point between the bottom left corner and the given spot of the sheet", "m": "the crease of step 1",
	} {
		if got := say.Plain(p.Called(name)); got != want {
			t.Errorf("%s is called %q, want %q", name, got, want)
		}
	}
}
