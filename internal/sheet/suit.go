package sheet

import (
	"fmt"

	"tussock/internal/say"
)

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

// Band is the range of a value that is good, and a wider one that is fair.
type Band struct {
	GoodMin, GoodMax, FairMin, FairMax float64
	Low, High                          string // what too little and too much do
}

func (b Band) judge(v float64) (Verdict, string) {
	why := b.Low
	if v > b.GoodMax {
		why = b.High
	}
	switch {
	case v >= b.GoodMin && v <= b.GoodMax:
		return Good, ""
	case v >= b.FairMin && v <= b.FairMax:
		return Fair, why
	}
	return Poor, why
}

// Bands are the paper that suits a way of moving, by weight in g/m² and bending stiffness
// in 1e-4 N·m. They are a folder's experience, not measurements, and logged trials
// overrule them.
type Bands struct{ Weight, Stiffness Band }

// The stack of layers that still folds well, and that folds at all, in mm.
const goodStackMM, fairStackMM = 1.6, 3.0

// SuitsFor judges a paper by what a way of moving wants: by the thickest stack of the pattern
// named, by weight and by stiffness. The worst of the three decides.
func SuitsFor(w Bands, gsm, thicknessMM float64, c Class, pattern string, layers int) Suits {
	stack := float64(layers) * thicknessMM
	out := Suits{Good, fmt.Sprintf("%d layers of it, the thickest stack of %s, are %s thick; weight and stiffness are right", layers, pattern, say.MM(stack, 1))}
	worse := func(v Verdict, why string) {
		if v == Poor && out.Verdict != Poor || v == Fair && out.Verdict == Good {
			out = Suits{v, why}
		}
	}
	thick := Band{0, goodStackMM, 0, fairStackMM, "", "the last folds spring open or do not lie"}
	if v, why := thick.judge(stack - 1e-9); v != Good {
		worse(v, fmt.Sprintf("%d layers of it, the thickest stack of %s, are %s thick: %s", layers, pattern, say.MM(stack, 1), why))
	}
	if v, why := w.Weight.judge(gsm); v != Good {
		worse(v, fmt.Sprintf("%s g/m²: %s", Number(gsm), why))
	}
	b := Bending(c, thicknessMM) * 1e4
	if v, why := w.Stiffness.judge(b); v != Good {
		worse(v, fmt.Sprintf("its stiffness is %.1f e-4 N·m: %s", b, why))
	}
	return out
}
