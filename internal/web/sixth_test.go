package web_test

import (
	"context"
	"fmt"
	"math"
	"strings"
	"testing"

	"tussock/internal/given"
	"tussock/internal/motion"
	"tussock/internal/motion/toys"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
	"tussock/internal/shelf"
	"tussock/internal/ways"
	"tussock/internal/web/builds"
	"tussock/internal/web/folding"
	"tussock/internal/web/motions"
)

// A sixth way of moving, so small that all of it stands here: a sheet folded in half that
// stands like a tent, and slides down a board. Its ridge is a crease named at the head of
// the pattern, its spread is a knob of the set-up, how far it slid is read off, and whether
// it tipped is noted. How far it slides is energy against dry friction: the board's height
// over the coefficient of friction, less where a steep tent digs in.

const ridgeWord, spreadKnob, slid, tipped = "ridge", "spread", "slid", "tipped over"

// SlideDrawing is what only sliding can draw.
type SlideDrawing struct {
	RidgeMM float64 `json:"ridge_mm"`
	Path    []struct {
		X float64 `json:"x"`
	} `json:"path"`
}

var slideWay = motion.Way{
	Name: "slide", Predicts: true, Headline: spreadKnob,
	Words: motion.Words{One: "slide", Many: "slides", Do: "Let it slide", Log: "Log the slide", None: "No slides yet.", Who: "Who", Motion: "Slide", Busy: "Letting go…",
		Conditions: "The board", Title: "Slide", Made: "Made to slide.", ForShow: "Made to be looked at.", Untried: "folded, has not slid yet", Tried: "has slid already",
		Last: "The spread", Noting: "Tap what it did.", Better: "Search for an aim.", Unlike: "It has no ridge."},
	Conditions: []motion.Condition{{Name: "height", Label: "Height of the board", Unit: "cm", Group: "The board", Default: 0.2, Min: 0.05, Max: 1}},
	Records:    []motion.Record{{ID: slid, Label: "Slid", Unit: "cm", Max: 10}},
	Kinds:      []motion.Kind{{Name: "far", Label: "Far", Asks: "How far did it slide?", Record: slid}},
	Chips:      []motion.Chip{{Name: tipped, Bad: true}, {Name: "ran straight"}},
	Measures:   []motion.Gauge{{Name: slid, Unit: "cm", Firm: true, Shown: true}},
	Aims:       []motion.Aim{{Name: "farthest", Label: "farthest", Gain: slid}},
	Free:       []string{spreadKnob}, Sweep: []string{spreadKnob},
	Accuracy: "for a straight board", Asked: &motion.Asked{Title: "the spread", How: "Against an angle card.", Fields: []motion.Field{{Name: spreadKnob, Label: "Spread", Unit: "deg", Min: 20, Max: 160}}},
}

func sliding() *toys.Way {
	return &toys.Way{
		Way: slideWay,
		Language: sequence.Vocabulary{
			Moves: "slide",
			Heads: []sequence.Head{{Word: ridgeWord, Kind: sequence.ALine, Least: 1, Most: 1, What: "the ridge", Fix: "ridge fold"}},
			Knobs: []sequence.Knob{{Name: spreadKnob, Label: "Spread of the tent", Unit: "deg", Default: 90, Min: 20, Max: 160, Step: 5, Changes: "How far its halves stand apart."}},
			Implies: func(p *sequence.Pattern, k sequence.Knob) (sequence.Knob, int, bool) {
				no := p.StepNamed(p.Head(ridgeWord))
				return k, no, no > 0
			},
			Entries: []sequence.Entry{{Word: ridgeWord, Group: "head", Syntax: "ridge name", Meaning: "The crease it stands under.", Example: "ridge fold"}},
		},
		On: func(p *sequence.Pattern, s sheet.Sheet) motion.Bench {
			return &tents{toys.Toys[float64]{Pattern: p, Sheet: s, Bent: map[string]bool{spreadKnob: true}, Of: func(r *sequence.Replay) (float64, error) {
				return r.Final().Box().Height(), nil
			}}}
		},
		Data: []any{SlideDrawing{}},
		Paper: sheet.Bands{Weight: sheet.Band{GoodMin: 60, GoodMax: 200, FairMin: 40, FairMax: 300, Low: "too light to slide", High: "too heavy to stand"},
			Stiffness: sheet.Band{GoodMin: 0.1, GoodMax: 50, FairMin: 0.05, FairMax: 90, Low: "too limp", High: "too stiff"}},
	}
}

// tents are toys by the length of the ridge, mm.
type tents struct{ toys.Toys[float64] }

func (b *tents) Under(c motion.Conditions, _ motion.Calibration) motion.Trying {
	return &slideTrying{b, c["height"]}
}

type slideTrying struct {
	on     *tents
	height float64
}

func (t *slideTrying) farM(knobs map[string]float64) float64 {
	const friction = 0.3 // paper on wood, handbooks of friction
	steep := math.Abs(t.on.Value(knobs, spreadKnob)-90) / 90
	return t.height / friction * (1 - 0.5*steep)
}

func (t *slideTrying) outlook(knobs map[string]float64) motion.Outlook {
	far := t.farM(knobs)
	return motion.Outlook{Outcome: motion.Outcome{ID: slid, Label: "Slid", Unit: "cm", Lo: 0.8 * far, Middle: far, Hi: 1.2 * far, Sides: []string{}}, Mode: "slides"}
}

func (t *slideTrying) Levers(knobs map[string]float64) []motion.Lever { return t.on.Levers(knobs, nil) }

func (t *slideTrying) Measure(levers []motion.Lever) motion.Measure {
	return func(_ context.Context, at []float64, _ motion.Sample) (motion.Measures, error) {
		knobs, _ := motion.Split(levers, at)
		return motion.Measures{slid: t.farM(knobs)}, nil
	}
}

func (t *slideTrying) Goal(string, float64) motion.Goal {
	return func(m motion.Measures) float64 { return m[slid] }
}

func (t *slideTrying) Outlook(_ context.Context, knobs map[string]float64) (motion.Outlook, error) {
	return t.outlook(knobs), nil
}

func (t *slideTrying) Predict(_ context.Context, knobs map[string]float64, _ []motion.Ghost) (motion.Prediction, error) {
	ridge, err := t.on.Toy(knobs)
	if err != nil {
		return motion.Prediction{}, err
	}
	o, d := t.outlook(knobs), SlideDrawing{RidgeMM: ridge}
	d.Path = append(d.Path, struct {
		X float64 `json:"x"`
	}{o.Middle})
	return motion.Prediction{Works: true, Mode: o.Mode, ModeWords: "It slides.", Modes: []motion.Share{{Mode: o.Mode, Share: 1}}, Outcomes: []motion.Outcome{o.Outcome},
		Readings: []motion.Reading{{ID: spreadKnob, Label: "Spread", Unit: "deg", Value: t.on.Value(knobs, spreadKnob)}}, Checks: []motion.Check{}, Tries: 1,
		Drawing: &motion.Drawing{Kind: "slide", Data: d}}, nil
}

func (t *slideTrying) Examine(_ context.Context, knobs map[string]float64, log []motion.Noted) (motion.Finding, error) {
	f, count, ok := motion.Look(log, []string{tipped}, "slide", "slides")
	if !ok {
		return f, nil
	}
	c := t.on.Change(knobs, spreadKnob, 20)
	after := t.outlook(toys.With(knobs, c))
	now := t.outlook(knobs)
	f.Title, f.Confidence = "It tips over", motion.Likely
	f.Causes = []motion.Cause{{Words: "it stands too steep", Law: "a narrow foot tips early", Log: fmt.Sprintf("%d of %d tipped over", count[tipped], len(log)), Weight: 1}}
	f.Remedy = &motion.Remedy{Changes: []motion.Change{c}, Do: "Spread it by 20° more.", Where: "at the ridge", Why: "a wider foot", Then: "It should stay up.", Against: "If it tips all the same, the board is uneven.", Now: &now, After: &after}
	return f, nil
}

func (t *slideTrying) Told(context.Context, map[string]float64, []motion.Noted) (*motion.Drawing, error) {
	return nil, nil
}

func (t *slideTrying) Take(knobs, measured map[string]float64) error {
	for name, v := range measured {
		if name != spreadKnob {
			return &given.Error{Field: name, Value: v, Want: "left out"}
		}
		knobs[spreadKnob] = v
	}
	return nil
}

const tent = `# A tent.
pattern "Plover"
moves slide
good "Slides down a board"
sheet rect 100 160
ridge fold

valley bring top to bottom as fold called "the ridge"
  say "Fold the sheet in half."
  looks "both edges lie on each other"
`

// A way of moving is one entry: with it, and nothing changed elsewhere, its patterns are
// read, lie on the shelf, are set, predicted, tried, tuned and cured.
func TestASixthWayOfMoving(t *testing.T) {
	if _, err := ways.Parse("plover", tent); err == nil || !strings.Contains(err.Error(), "slide") {
		t.Fatalf("nobody knows sliding yet: %v", err)
	}
	before := len(ways.All())
	defer ways.Add(sliding())()
	remove, err := shelf.Add("plover.pattern", tent)
	if err != nil {
		t.Fatal(err)
	}
	defer remove()
	if _, err := ways.Parse("plover", strings.Replace(tent, "ridge fold", "ridge", 1)); err == nil || !strings.Contains(err.Error(), "ridge") {
		t.Errorf("a ridge without a name: %v", err)
	}
	c := serve(t, false)

	// The page learns of it like of the others.
	all := ask[[]motion.Way](c, "GET", "/moves", "")
	if w := all[len(all)-1]; len(all) != before+1 || w.Words.Title != "Slide" || len(w.Conditions) != 2 || w.Conditions[1].Group != "Safety" {
		t.Errorf("%d ways, the last is %+v", len(all), w)
	}
	if _, schema := c.send("GET", "/openapi.json", ""); !strings.Contains(string(schema), "ridge_mm") {
		t.Error("the description of the API lacks its drawing")
	}
	found := false
	for _, p := range ask[[]folding.PatternView](c, "GET", "/patterns", "") {
		found = found || p.ID == "plover" && p.Moves == "slide"
	}
	if !found {
		t.Error("its pattern does not lie on the shelf")
	}

	// Set, predicted, and warned of because it is small.
	sheet := `{"width":100,"height":160,"unit":"mm","gsm":80,"thickness_mm":0.1}`
	at := func(knobs, conditions string) motions.PredictionView {
		return ask[motions.PredictionView](c, "POST", "/patterns/plover/prediction", `{"sheet":`+sheet+`,"knobs":{`+knobs+`},"conditions":{`+conditions+`}}`)
	}
	v, narrow, high := at("", ""), at(`"spread":45`, ""), at("", `"height":0.4`)
	if d := drawn[SlideDrawing](t, v.Drawing, "slide"); d.RidgeMM != 80 || len(d.Path) != 1 {
		t.Errorf("%+v", d)
	}
	if m := v.Outcomes[0].Middle; narrow.Outcomes[0].Middle >= m || math.Abs(high.Outcomes[0].Middle-2*m) > 1e-9 {
		t.Errorf("%v m; %v narrow, %v from higher", m, narrow.Outcomes[0].Middle, high.Outcomes[0].Middle)
	}
	small := ask[motions.PredictionView](c, "POST", "/patterns/plover/prediction", `{"sheet":{"width":20,"height":32,"unit":"mm","gsm":80,"thickness_mm":0.1}}`)
	if len(v.Checks) != 0 || len(small.Checks) != 1 || small.Checks[0].ID != "SF06" {
		t.Errorf("checks %+v, of a small one %+v", v.Checks, small.Checks)
	}
	refused(c, "POST", "/patterns/plover/prediction", `{"sheet":`+sheet+`,"knobs":{"spread":170}}`, "spread", "20 to 160")
	if s := ask[motions.SweepView](c, "POST", "/patterns/plover/sweep", `{"sheet":`+sheet+`,"lever":"spread"}`); len(s.Points) < 11 {
		t.Errorf("%d points of a sweep", len(s.Points))
	}
	if k := ask[map[string]float64](c, "POST", "/patterns/plover/measured", `{"sheet":`+sheet+`,"measured":{"spread":75}}`); k[spreadKnob] != 75 {
		t.Errorf("measured %v", k)
	}

	// Built, tried, and cured.
	ask[builds.BuildView](c, "POST", "/builds", `{"pattern":"plover","sheet":`+sheet+`}`)
	log := func(body string) {
		ask[builds.LoggedView](c, "POST", "/builds/1/trials", body)
	}
	log(`{"read":{"slid":0.5},"seen":["tipped over"]}`)
	log(`{"read":{"slid":0.4},"seen":["tipped over"]}`)
	refused(c, "POST", "/builds/1/trials", `{"read":{"distance":3}}`, "distance", "not measured of this toy")
	refused(c, "POST", "/builds/1/trials", `{"read":{"slid":30}}`, "slid", "0 to 1000 cm")
	if v := ask[motions.ClinicView](c, "POST", "/builds/1/clinic", `{}`); v.Finding.Wants != 1 {
		t.Errorf("after two: %+v", v.Finding)
	}
	log(`{"read":{"slid":0.45},"seen":["tipped over","ran straight"]}`)
	clinic := ask[motions.ClinicView](c, "POST", "/builds/1/clinic", `{}`)
	if r := clinic.Finding.Remedy; clinic.Finding.Symptom != tipped || r == nil || r.Changes[0].To != 110 || r.Now.Middle <= r.After.Middle {
		t.Errorf("%+v", clinic.Finding)
	}
	b := ask[builds.BuildView](c, "GET", "/builds/1", "")
	if s := b.Tweaks[0].Stats[slid]; s.N != 3 || math.Abs(s.Median-0.45) > 1e-9 {
		t.Errorf("%+v", s)
	}
}
