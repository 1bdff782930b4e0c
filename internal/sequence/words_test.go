package sequence_test

import (
	"fmt"
	"strings"
	"testing"

	"tussock/internal/fold"
	"tussock/internal/sheet"
	"tussock/internal/ways"
)

// What cannot be read of the newer words says where, what is wrong and what
// would be right.
func TestNewWordsRefusals(t *testing.T) {
	head := "sheet square 100\ncrease bring left to right as k\n"
	for text, want := range map[string]string{
		"valley bring TL to BR gap":                               "the gap in mm",
		"valley bring TL to BR between TL":                        "point is needed",
		"valley bring TL to BR layers some":                       "number of layers",
		"valley bring TL to BR layers top 2":                      `write "at"`,
		"reverse sideways TL through L T spine TL C":              "inside or outside",
		"reverse inside TL through L T":                           `write "spine"`,
		"squash spine TL BR":                                      `write "onto"`,
		"petal TL creases k":                                      "line",
		"collapse fixed C":                                        "which creases fold",
		"collapse fixed C M L":                                    "point is needed",
		"twist 2 about C radius 9 slant 50 fixed C":               "3 to 12",
		"twist 4 about C radius 9 fixed C":                        `write "slant"`,
		"pleat along k moving T":                                  "two creases or more",
		"roll top turns 0 width 3 moving T":                       "1 to 20",
		"round TL radius 5 count 40":                              "1 to 12",
		"cut along k":                                             `write "removing"`,
		"unfold to nowhere":                                       "nothing is called",
		"glue TL":                                                 `write "to"`,
		"clip TL":                                                 `write "mass"`,
		"label TL 5":                                              "in quotes",
		"bend k moving TL":                                        "needs an angle",
		"wrap k moving TL angle 20":                               "needs a radius",
		"curl k moving TL":                                        "angle or a radius",
		"part k into 1":                                           "2 to 24",
		"wing along k and k moving TL angle 90":                   "landmarks that move",
		"valley bring TL to BR class perfect":                     "critical, normal or free",
		"valley bring TL to BR as k":                              "already",
		"valley bring TL to BR as com":                            "word of the language",
		"sheet square 50":                                         "named twice",
		"use nothing":                                             "no macro",
		"macro m\ncrease bring top to bottom":                     "has no end",
		"macro m\nend\nmacro m\nend":                              "already",
		"repeat k":                                                "suffix",
		"repeat z as q":                                           "no step or landmark above",
		"repeat k 99 times as q":                                  "1 to 24",
		"valley bring TL to BR as f\nguard f before k \"x\"":      "must come before",
		"guard k before z \"x\"":                                  "no step above",
		"expect k parallel top":                                   `write "within"`,
		"expect TL near TR":                                       "at, on or above",
		"crease along turned(k,5,TL)":                             `write ","`,
		"margin middle 4":                                         "left, right, bottom or top",
		"transfer TL across k":                                    `write "as"`,
		"pair sideways k moving TL":                               "valley or mountain",
		"draw TL F k":                                             `write "fixed"`,
		"valley bring TL to k and TR to k through C moving TL":    "not part of this step",
		"petal TL creases k k spines k k as p called":             "in quotes",
		"point X = com(":                                          "not expected",
		"pinch bring TL to BL length 5":                           `write "near"`,
		"slit TL":                                                 "point",
		"valley bring TL to BR sharp firm soft optional nonsense": "not part of this step",
		"repeat k to k 2 times mirrored ud as q":                  "lr or tb",
		"crease along taper(top,1,TL,2,TR)":                       `write ","`,
		"crease along edge(TL)":                                   `write ","`,
		"sheet ngon 12 50":                                        "named twice",
	} {
		_, err := ways.Parse("p", head+text)
		if err == nil {
			t.Errorf("%q is read", text)
			continue
		}
		if !strings.Contains(err.Error(), want) || !strings.HasPrefix(err.Error(), "p:") {
			t.Errorf("%q: %v; want %q", text, err, want)
		}
	}
	for text, want := range map[string]string{
		"sheet ngon 12 50\ncrease through P1 P2":                      "3 to 8",
		"sheet polygon 0 0 100 0\ncrease through P1 P2":               "3 to 64 corners",
		"sheet polygon 0 0 100 100 100 0 0 100\ncrease through P1 P2": "closed line",
		"sheet triangle 5": "rect, square, strip",
	} {
		if _, err := ways.Parse("p", text); err == nil || !strings.Contains(err.Error(), want) {
			t.Errorf("%q: %v; want %q", text, err, want)
		}
	}
}

// Macros and repeats write out what a person would have written: the same toy.
func TestMacrosAndRepeatsAreWrittenOut(t *testing.T) {
	long := run(t, "sheet rect 210 297\ncrease bring left to right as keel\nvalley bring TL to keel through T near C as a\nvalley bring TR to keel through T near C as b\nvalley bring a to keel as c\nvalley bring b to keel as d")
	short := run(t, "sheet rect 210 297\nmacro nose\nvalley bring TL to keel through T near C as a\nend\ncrease bring left to right as keel\nuse nose as x\nrepeat ax mirrored lr as m\nvalley bring ax to keel as c\nrepeat c swap ax axm as m")
	if long.Err != nil || short.Err != nil {
		t.Fatal(long.Err, short.Err)
	}
	a, b := long.Final(), short.Final()
	if len(a.F) != len(b.F) {
		t.Fatalf("%d pieces and %d", len(a.F), len(b.F))
	}
	for i := range a.F {
		if !a.F[i].Iso.Near(b.F[i].Iso, 1e-9) {
			t.Errorf("piece %d lies elsewhere", i)
		}
	}
	if got := short.Steps[2].Text; got != "valley bring TR to keel through T near C as axm" {
		t.Errorf("the repeated step reads %q", got)
	}
	// Words for people change sides with the step.
	r := run(t, "sheet square 100\nvalley bring TL to C as f\n  say \"Bring the left corner to the middle.\"\nrepeat f mirrored lr as m")
	if r.Err != nil || r.Steps[1].Say != "Bring the right corner to the middle." {
		t.Errorf("%v: %q", r.Err, r.Steps[1].Say)
	}
	// Several times over: each copy builds on the state that the one before left.
	n := run(t, "sheet rect 100 400\npoint P = part(TL,BL,0.5)\nvalley along par([L R],10,T) moving T as z\nrepeat z 1 times swap T B as b")
	if n.Err == nil && len(n.Steps) != 2 {
		t.Errorf("%d steps", len(n.Steps))
	}
}

// Nothing is done silently that does nothing: what opens no fold, what bends no paper, and
// flat folds on a toy that does not lie flat are refused with what to do.
func TestNoSilentSteps(t *testing.T) {
	head := "sheet rect 60 200\nmoves reveal\n"
	for _, c := range []struct {
		text, says string
		code       fold.Code
	}{
		{"crease bring left to right as m\nopen along m moving TR angle 40\n", "fold it first", fold.CodeNoLine},
		{"valley bring left to right as m\nopen along bottom moving R angle 40\n", "nothing is folded along the bottom edge", fold.CodeNoLine},
		{"valley bring top to bottom as m\ncurl par(bottom, 150, C) moving B angle 40 radius 15\n", "runs beside the paper", fold.CodeNoLine},
	} {
		p, err := ways.Parse("t", head+c.text)
		if err != nil {
			t.Fatal(err)
		}
		r := p.Run(sheet.Sheet{WidthMM: 60, HeightMM: 200, GSM: 80, ThicknessMM: 0.1}, nil)
		if e := fold.As(r.Err); e == nil || e.Code != c.code || !strings.Contains(e.Detail, c.says) {
			t.Errorf("%q: %v", c.text, r.Err)
		}
	}
	for text, no := range map[string]int{
		"valley bring left to right as m\nopen along m moving L angle 60\nvalley bring top to bottom as n\n":                   2,
		"crease through L R as m\nbend m moving T angle 90 radius 10\nvalley bring left to right as n\n":                       2,
		"crease through L R as m\nbend m moving T angle 90 radius 10\ncrease bring left to right as n\n":                       2,
		"crease through L R as m\nbend m moving T angle 90 radius 10 conditioning\nvalley bring left to right as n\n":          0,
		"valley bring left to right as m\nvalley bring top to bottom as n\nopen along n moving T angle 60\nclip BL mass 0.2\n": 0,
	} {
		p, err := ways.Parse("t", head+text)
		if err != nil {
			t.Fatal(err)
		}
		r := p.Run(sheet.Sheet{WidthMM: 60, HeightMM: 200, GSM: 80, ThicknessMM: 0.1}, nil)
		e := fold.As(r.Err)
		if no == 0 && e != nil {
			t.Errorf("%q: %v", text, e)
		}
		if no > 0 && (e == nil || e.Code != fold.CodeOrder || e.Step != no+1 || !strings.Contains(e.Detail, fmt.Sprintf("step %d has", no)) || !strings.Contains(e.Detail, "before it")) {
			t.Errorf("%q: %v", text, r.Err)
		}
	}
}

// What cannot be is said with its place, what is meant, and what to write.
func TestWordsThatFailWell(t *testing.T) {
	for _, c := range []struct{ text, says, fix string }{
		{"sheet square 100\ncollapse fixed part(C,R,0.5) V C R M C TR V C T M C TL V C L M C BL V C B M C BR\n", "4 mountains and 4 valleys meet at the middle of the sheet", "write A for one"},
		{"sheet ngon 5 60\ncollapse fixed part(C,mid(P1,M1),1/2) V C M1 M C P2 V C M2 M C P3 V C M3 M C P4 V C M4 M C P5 V C M5 M C P1\n", "5 mountains and 5 valleys meet at", "differ by two"},
		{"sheet square 100\nvalley along par(left,20,C) moving [TL TR]\n", "a pair of landmarks in brackets is a line", "mid(P, P)"},
		{"sheet square 150\nuse bird\npoint N1 = part(TL,C,0.66) on layer TL\npoint P1 = part(TL,Y2,0.74) on layer TL\nreverse inside TL through P1 N1 spine TL C as neck\npoint Hd = part(TL,P1,0.22) on layer TL\npoint He = part(TL,N1,0.35) on layer TL\nreverse outside TL through Hd He spine TL C as head\n", "can only be pushed in", "write reverse inside"},
	} {
		p, err := ways.Parse("t", c.text)
		if err == nil {
			sh, serr := sheet.New(p.WidthMM, p.HeightMM, 80, 0.1)
			if serr != nil {
				t.Fatal(serr)
			}
			if p.Shape != nil {
				sh.Shape = p.Shape
			}
			err = p.Run(sh, nil).Err
			if fe := fold.As(err); fe == nil {
				err = nil
			}
		}
		if err == nil || !strings.Contains(err.Error(), c.says) || !strings.Contains(err.Error(), c.fix) {
			t.Errorf("%.60q: %v", c.text, err)
		}
	}
}
