package sheet

import "fmt"

// Suits is how well a paper serves for one way of moving.
type Suits struct {
	Verdict Verdict
	Why     string // the reason that decides
}

// Verdict is good, fair or poor.
type Verdict string

// The verdicts, best first.
const (
	Good Verdict = "good"
	Fair Verdict = "fair"
	Poor Verdict = "poor"
)

// band is the range of a value that is good, and a wider one that is fair.
type band struct {
	goodMin, goodMax, fairMin, fairMax float64
	low, high                          string // what too little and too much do
}

func (b band) judge(v float64) (Verdict, string) {
	why := b.low
	if v > b.goodMax {
		why = b.high
	}
	switch {
	case v >= b.goodMin && v <= b.goodMax:
		return Good, ""
	case v >= b.fairMin && v <= b.fairMax:
		return Fair, why
	}
	return Poor, why
}

// Rules of thumb, by way of moving: weight in g/m² and bending stiffness in 1e-4
// N·m. They are a folder's experience, not measurements, and logged trials overrule
// them.
var weights = map[string]band{
	"fly":    {55, 100, 40, 130, "so light a wing is bent by its own wind", "so heavy a glider sinks fast and needs a hard throw"},
	"hop":    {55, 130, 40, 180, "so light a toy has little spring behind it", "so heavy a toy is more than its spring lifts"},
	"flap":   {35, 90, 25, 110, "so light a paper tears at the tail", "so heavy a wing hardly follows the tail"},
	"spin":   {55, 160, 40, 220, "so light a spinner has no swing to keep", "so heavy a blade needs a storm"},
	"reveal": {50, 110, 35, 160, "so light a paper does not spring open", "so heavy a paper does not fold back on itself"},
}

var stiffnesses = map[string]band{
	"fly":    {1.2, 9, 0.6, 20, "wings so limp flutter", "so stiff a paper cracks along its creases"},
	"hop":    {1.5, 12, 1, 25, "so limp a pleat hardly springs", "a pleat so stiff is not pressed down by a finger"},
	"flap":   {0.3, 4, 0.2, 8, "so limp a wing hangs", "so stiff a wing does not swing"},
	"spin":   {1, 15, 0.5, 30, "so limp a blade gives way to the wind", "so stiff a blade does not curl"},
	"reveal": {0.8, 9, 0.4, 20, "so limp a flap does not stand", "so stiff a paper does not fold back on itself"},
}

// The stack of layers that still folds well, and that folds at all, in mm.
const goodStackMM, fairStackMM = 1.6, 3.0

// SuitsFor judges a paper for a way of moving: by the thickest stack of the pattern
// named, by weight and by stiffness. The worst of the three decides.
func SuitsFor(moves string, gsm, thicknessMM float64, c Class, pattern string, layers int) Suits {
	stack := float64(layers) * thicknessMM
	out := Suits{Good, fmt.Sprintf("%d layers of it, the thickest stack of %s, are %.1f mm thick; weight and stiffness are right", layers, pattern, stack)}
	worse := func(v Verdict, why string) {
		if v == Poor && out.Verdict != Poor || v == Fair && out.Verdict == Good {
			out = Suits{v, why}
		}
	}
	thick := band{0, goodStackMM, 0, fairStackMM, "", "the last folds spring open or do not lie"}
	if v, why := thick.judge(stack - 1e-9); v != Good {
		worse(v, fmt.Sprintf("%d layers of it, the thickest stack of %s, are %.1f mm thick: %s", layers, pattern, stack, why))
	}
	if v, why := weights[moves].judge(gsm); v != Good {
		worse(v, fmt.Sprintf("%s g/m²: %s", Number(gsm), why))
	}
	b := Bending(c, thicknessMM) * 1e4
	if v, why := stiffnesses[moves].judge(b); v != Good {
		worse(v, fmt.Sprintf("its stiffness is %.1f e-4 N·m: %s", b, why))
	}
	return out
}
