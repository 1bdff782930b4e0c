package rings

import (
	"context"
	"errors"
	"fmt"
	"math"
	"slices"

	"tussock/internal/draw"
	"tussock/internal/motion"
	"tussock/internal/motion/reveal/ring"
	"tussock/internal/say"
)

// RingDrawing is a ring with all that it can show.
type RingDrawing struct {
	Faces  int         `json:"faces"`
	States []RingState `json:"states"`
	Flexes []RingFlex  `json:"flexes"`
	Labels [][2]int    `json:"labels"` // faces of every triangle of the strip, front and back
	Tour   []RingStep  `json:"tour"`   // a walk that shows all faces
	Check  RingCheck   `json:"check"`
	Join   RingJoin    `json:"join"`
	Angles []RingAngle `json:"angles"`
}

// RingState is one way that a ring lies, one side up.
type RingState struct {
	Front   int          `json:"front"` // face
	Behind  int          `json:"behind"`
	Thick   []int        `json:"thick"` // leaves of the six places, clockwise or against it as drawn
	Over    int          `json:"over"`  // the state that it is turned over
	Picture draw.Picture `json:"picture"`
	// Spot is where it stands among all, in a square of one by one: states in which two threes of
	// corners open in the middle, the others outside, near those that they lead to.
	Spot [2]float64 `json:"spot"`
	// Joints are the six from the middle outward: where each ends, mm of the picture, and
	// whether it opens when it is pinched.
	Joints []RingJoint  `json:"joints"`
	Ways   [][]RingMove `json:"ways"` // by face: the shortest way to it; empty when it is in front
}

// RingJoint is a joint from the middle outward.
type RingJoint struct {
	At    [2]float64 `json:"at"`
	Opens bool       `json:"opens"` // the place beside it has a slit on top
	To    int        `json:"to"`    // state that a flex there leads to; -1 for none
}

// RingMove is one thing to do.
type RingMove struct {
	Over  bool `json:"over"` // turn it over
	Joint int  `json:"joint"`
	To    int  `json:"to"`
	Front int  `json:"front"` // face that is then in front
}

// RingFlex leads from one state to another.
type RingFlex struct {
	From int `json:"from"`
	To   int `json:"to"`
}

// RingStep is one flex of a walk.
type RingStep struct {
	From  int  `json:"from"`
	To    int  `json:"to"`
	Front int  `json:"front"` // face in front before it
	Same  bool `json:"same"`  // at the same corner as the one before; else the next one
}

// RingCheck is what to look for before gluing: places that stand up.
type RingCheck struct {
	Picture draw.Picture `json:"picture"`
	Loose   []RingJoint  `json:"loose"`
	Thick   []int        `json:"thick"`
	Items   []string     `json:"items"`
	Redo    []string     `json:"redo"` // what to fold again, item by item
	Glue    string       `json:"glue"`
}

// RingJoin is how a strip is put together from shorter ones.
type RingJoin struct {
	LengthMM float64 `json:"length_mm"` // needed
	WidestMM float64 `json:"widest_mm"` // strip without a joint
	Pieces   []int   `json:"pieces"`    // triangles
	At       []int   `json:"at"`        // the triangle that is double at each joint
	Says     string  `json:"says"`
}

// RingAngle is a way to the first angle of 60°.
type RingAngle struct {
	Name string    `json:"name"`
	Says string    `json:"says"`
	Deg  []float64 `json:"deg"` // after each fold
}

func round2(v float64) float64 { return math.Round(100*v) / 100 }

func (w *Workbench) drawing(g made) *RingDrawing {
	inks, _ := Writing().All(g.replay, g.places(), w.written)
	d := &RingDrawing{Faces: g.Graph.Faces, Labels: g.Graph.Labels, Flexes: []RingFlex{}, States: []RingState{}, Tour: []RingStep{}}
	for i := range g.Graph.States {
		d.States = append(d.States, w.state(g, i, inks))
	}
	for i, p := range g.spots() {
		d.States[i].Spot = p
	}
	for _, f := range g.Graph.Flexes {
		d.Flexes = append(d.Flexes, RingFlex{f.From, f.To})
	}
	was := -1
	for _, f := range g.Graph.Tour(0) {
		d.Tour = append(d.Tour, RingStep{f.From, f.To, g.Graph.Front[f.From], was < 0 || was == f.Corners})
		was = f.Corners
	}
	d.Check = w.check(g, inks)
	d.Join = w.join(g)
	d.Angles = w.angles()
	return d
}

// spots lay the states out; a state and the same turned over share one.
func (g *Geometry) spots() [][2]float64 {
	out := make([][2]float64, len(g.Graph.States))
	var inner, outer []int
	for i := range g.Graph.States {
		switch {
		case g.Graph.Over[i] < i:
		case len(g.Graph.From(i)) > 1 || g.Graph.Faces == 3:
			inner = append(inner, i)
		default:
			outer = append(outer, i)
		}
	}
	put := func(i int, angle, radius float64) {
		s, c := math.Sincos(angle)
		out[i] = [2]float64{round2(0.5 + radius*s), round2(0.5 - radius*c)}
		out[g.Graph.Over[i]] = out[i]
	}
	const near, far, apart = 0.2, 0.43, 0.33
	for k, i := range inner {
		put(i, 2*math.Pi*float64(k)/float64(len(inner)), near)
	}
	taken := map[int]int{}
	for _, i := range outer {
		var x, y float64
		for _, side := range []int{i, g.Graph.Over[i]} {
			for _, f := range g.Graph.Flexes {
				if f.From == side || f.To == side {
					other := f.From + f.To - side
					q := out[other]
					if slices.Contains(inner, other) || slices.Contains(inner, g.Graph.Over[other]) {
						x, y = x+q[0]-0.5, y+q[1]-0.5
					}
				}
			}
		}
		at := math.Atan2(x, -y)
		key := int(math.Round(at * 10))
		put(i, at+apart*(2*float64(taken[key])-1), far)
		taken[key]++
	}
	return out
}

// state is one state with what opens in it.
func (w *Workbench) state(g made, i int, inks []draw.Ink) RingState {
	s := g.Graph.States[i]
	thick := s.Thick()
	out := RingState{Front: g.Graph.Front[i], Behind: g.Graph.Behind[i], Thick: thick[:], Over: g.Graph.Over[i], Picture: g.pictured(s, inks), Joints: []RingJoint{}, Ways: [][]RingMove{}}
	to := map[int]int{} // by parity of the joints that are shut
	for _, f := range g.Graph.From(i) {
		to[s.Shuts(f.Corners)] = f.To
	}
	for k := range ring.Pats {
		at := g.corner(k, ring.Before)
		j := RingJoint{At: [2]float64{round2(at.X), round2(-at.Y)}, To: -1}
		if t, ok := to[k%2]; ok {
			j.Opens, j.To = true, t
		}
		out.Joints = append(out.Joints, j)
	}
	for face := 1; face <= g.Graph.Faces; face++ {
		way, at := []RingMove{}, i
		for _, m := range g.Graph.Path(i, face) {
			move := RingMove{Over: m.Over, To: m.To, Front: g.Graph.Front[m.To]}
			if !m.Over {
				move.Joint = g.Graph.States[at].Shuts(m.Corners)
			}
			way, at = append(way, move), m.To
		}
		out.Ways = append(out.Ways, way)
	}
	return out
}

// check is what to look for before the ends are glued.
func (w *Workbench) check(g made, inks []draw.Ink) RingCheck {
	s := g.State
	thick := s.Thick()
	c := RingCheck{Picture: g.pictured(s, inks), Thick: thick[:], Loose: []RingJoint{}}
	most := 0
	for _, k := range thick {
		most = max(most, k)
	}
	for k := range ring.Pats {
		at := g.corner(k, ring.Before).Add(g.corner(k, ring.After)).Scale(1.0 / 3)
		c.Loose = append(c.Loose, RingJoint{At: [2]float64{round2(at.X), round2(-at.Y)}, Opens: thick[k] == most, To: -1})
	}
	c.Items, c.Redo = g.checked()
	c.Glue = fmt.Sprintf("Glue triangle %d to triangle 1, these two faces alone: they are the only ones without a number.", g.Leaves+1)
	return c
}

// checked are the things to look for before gluing, and what to fold again where one is not so.
func (g *Geometry) checked() (items, redo []string) {
	s := g.State
	thick := s.Thick()
	most := slices.Max(thick[:])
	front, behind := g.Graph.Label(s[0][0]), 0
	last := s[0][len(s[0])-1]
	behind = g.Graph.Label(ring.Leaf{No: last.No, Back: !last.Back})
	least := thick[0]
	for _, k := range thick {
		least = min(least, k)
	}
	items = []string{
		fmt.Sprintf("It lies flat, six triangles on each side: %d in front, %d behind, and no other number.", front, behind),
		fmt.Sprintf("Places have %d and %d layers in turn: every second one can be lifted with a fingertip.", most, least),
		fmt.Sprintf("The two ends meet: triangle %d lies on triangle 1, blank side on blank side.", g.Leaves+1),
	}
	first, spiral := "the third joint from the start", ""
	if g.Graph.Faces == 6 {
		first, spiral = "the joint after the first place", " Unroll it to the strip of nine: 4 on 4, 5 on 5, 6 on 6."
	}
	redo = []string{
		"A number out of place: one fold is off by a triangle, or the strip was turned over. Open it, and fold again from " + first + "." + spiral,
		"Two thick places side by side: the last end was not tucked. Open the last fold, and lay the end over, not under, its neighbour.",
		"The ends do not meet: count the triangles. There must be " + fmt.Sprint(g.Leaves+1) + ".",
	}
	return items, redo
}

// join is how the strip is put together from what is at hand.
func (w *Workbench) join(g made) RingJoin {
	out := RingJoin{LengthMM: round2(g.LengthMM), WidestMM: round2(ring.WidestMM(w.longestMM, g.Leaves+1)), Pieces: []int{}, At: []int{}}
	j, err := ring.Join(g.WidthMM, g.Leaves+1, w.longestMM)
	switch {
	case err != nil:
		out.Says = say.Capital(err.Error()) + "."
	case len(j.Pieces) == 1:
		out.Says = fmt.Sprintf("One strip of %s is enough. From %s a strip may be up to %s wide.", say.MM(g.LengthMM, 1), say.MM(w.longestMM, 0), say.MM(out.WidestMM, 1))
		out.Pieces = j.Pieces
	default:
		out.Pieces, out.At = j.Pieces, j.AtLeaf
		out.Says = fmt.Sprintf("%d strips, the longest %s: lay the last triangle of each under the first of the next, and glue it whole. Choose a triangle that ends up in a thin place.", len(j.Pieces), say.MM(j.LongMM, 1))
	}
	return out
}

// angles are three ways to 60°, and how a guess comes to it.
func (w *Workbench) angles() []RingAngle {
	guess := []float64{}
	for n := range 7 {
		guess = append(guess, round2(ring.Bisected(w.startDeg, n)))
	}
	return []RingAngle{
		{"Middle line", "Pinch the middle line of the strip at one end. Bring a corner to it with the fold through the other corner of that end: 60° at once, as half the width is half the side.", []float64{60}},
		{"Guess and halve", "Fold any angle near 60°. Bring the edge to that crease, then the other edge to the new one, and so on: each fold halves what is left.", guess},
		{"Printed lines", "Print the strip at true size, and fold on the lines.", []float64{60}},
	}
}

// faces is the outcome that counts most: exact.
func (g made) faces() motion.Outcome {
	v := float64(g.Graph.Faces)
	return motion.Range{Lo: v, Middle: v, Hi: v, Lo95: v, Hi95: v}.Outcome(Faces, "Faces to be found", "", 0)
}

// Predict flexes a set-up.
func (w *Workbench) Predict(ctx context.Context, knobs map[string]float64, _ []motion.Ghost) (motion.Prediction, error) {
	out := motion.Prediction{Readings: []motion.Reading{}, Checks: []motion.Check{}, Modes: []motion.Share{}, Outcomes: []motion.Outcome{}, Tries: motion.Draws}
	g, _, err := w.At(ctx, knobs)
	if errors.Is(err, ErrNoRing) {
		out.Mode, out.ModeWords = "no ring", say.Capital(err.Error())+"."
		return out, nil
	}
	if err != nil {
		return out, err
	}
	out.Works = true
	modes, off := w.scatter(g, motion.Whole)
	out.Modes = motion.Shares(modes, motion.Draws)
	out.Mode = out.Modes[0].Mode
	out.Outcomes = []motion.Outcome{g.faces()}
	out.ModeWords = w.modeWords(g, out.Mode)
	out.Readings = w.readings(g, modes, off)
	out.Checks = w.checks(g, modes)
	out.Drawing = &motion.Drawing{Kind: "ring", Data: w.drawing(g)}
	return out, ctx.Err()
}

// Outlook is the first outcome alone.
func (w *Workbench) Outlook(ctx context.Context, knobs map[string]float64) (motion.Outlook, error) {
	g, _, err := w.At(ctx, knobs)
	if err != nil {
		return motion.Outlook{}, err
	}
	modes, _ := w.scatter(g, motion.Whole)
	return motion.Outlook{Outcome: g.faces(), Mode: motion.Shares(modes, motion.Draws)[0].Mode}, nil
}

func (w *Workbench) modeWords(g made, mode string) string {
	says := fmt.Sprintf("%d faces, %d ways to lie. A walk of %d flexes shows them all.", g.Graph.Faces, len(g.Graph.States)/2, len(g.Graph.Tour(0)))
	switch mode {
	case modeStiff:
		says += fmt.Sprintf(" At %d layers, %s thick, its joints are stiff: take thinner paper or a wider strip.", g.thickest(), say.MM(float64(g.thickest())*g.ThickMM, 2))
	case modeBulges:
		says += " Its folds add up to more than the middle hides: fold more exactly, zigzag, or print the lines."
	}
	return says
}

func (w *Workbench) readings(g made, modes map[string]int, off []float64) []motion.Reading {
	var out []motion.Reading
	exact := func(id, label, unit string, v float64, decimals int, meaning, moved string) {
		out = append(out, motion.Reading{ID: id, Label: label, Unit: unit, Value: v, Lo: v, Hi: v, Decimals: decimals, Meaning: meaning, MovedBy: moved})
	}
	exact("faces", "Faces to be found", "", float64(g.Graph.Faces), 0, "Sets of six triangles that show together, found by flexing every state of it.", "triangles of the strip")
	out[0].Brief = "faces to be found"
	exact("states", "Ways to lie", "", float64(len(g.Graph.States)/2), 0, "States that a flex leads to; turned over they are counted once.", "triangles of the strip")
	exact("tour", "Flexes that show all", "", float64(len(g.Graph.Tour(0))), 0, "Flex at the same corner as long as it opens, else at the next.", "triangles of the strip")
	flexes := 100 * float64(modes[modeFlexes]) / motion.Draws
	out = append(out, motion.Reading{ID: "flexes", Label: "Flexes easily", Unit: "%", Value: flexes, Lo: math.Max(0, flexes-25), Hi: math.Min(100, flexes+15), UsualLo: 70, UsualHi: 100, Predicted: true, Meaning: "Of a hundred folded so. Rests on estimates of what is stiff and what gapes.", MovedBy: "paper, width, exactness"})
	r := motion.RangeOf(append([]float64{}, off...))
	out = append(out, motion.Reading{ID: "off", Label: "Folds off together", Unit: "mm", Value: r.Middle, Lo: r.Lo, Hi: r.Hi, Decimals: 1, UsualLo: 0, UsualHi: 1, Predicted: true, Meaning: fmt.Sprintf("A width off by δ makes sides off by 1.155 δ; %d folds add up.", g.folds()), MovedBy: "exactness, zigzag or roll, thickness"})
	exact("width", "Strip", "mm", g.WidthMM, 1, "Its width: the height of a triangle.", "sheet")
	exact("side", "Side of a triangle", "mm", g.SideMM, 2, "2 w/√3.", "width")
	exact("length", "Length of the strip", "mm", g.LengthMM, 1, "(n + 1)/2 sides for n triangles, points included.", "width, triangles")
	exact("across", "Hexagon over corners", "mm", 2*g.SideMM, 1, "Two sides.", "width")
	exact("flats", "Hexagon over flats", "mm", 2*g.WidthMM, 1, "Two widths.", "width")
	exact("layers", "Thickest place", "layers", float64(g.thickest()), 0, "The most leaves that lie on one another, in any state.", "faces")
	roll, zigzag := ring.CreepMM(g.ThickMM, g.Leaves/2)
	exact("zigzag", "Creep zigzagged", "mm", zigzag, 2, "π/2 t: each triangle goes round the one beside it; to and fro cancels.", "thickness")
	exact("roll", "Creep rolled", "mm", roll, 1, fmt.Sprintf("π/2 t for every layer inside, over %d turns: why edges blur.", g.Leaves/2), "thickness")
	exact("mass", "Mass", "g", g.MassG, 2, "Paper.", "sheet and paper")
	return out
}

func (w *Workbench) checks(g made, modes map[string]int) []motion.Check {
	var out []motion.Check
	add := func(id, title string, ok bool, good, bad string) {
		c := motion.Check{ID: id, Title: title, OK: ok, Says: good, Fix: []motion.Change{}}
		if !ok {
			c.Says = bad
		}
		out = append(out, c)
	}
	thick := float64(g.thickest()) * g.ThickMM
	add("stiff", "Joints", 4*modes[modeStiff] < motion.Draws, fmt.Sprintf("%d layers are %s thick.", g.thickest(), say.MM(thick, 2)),
		fmt.Sprintf("%d layers are %s thick at sides of %s: thinner paper, or a wider strip. Fold every joint both ways first.", g.thickest(), say.MM(thick, 2), say.MM(g.SideMM, 0)))
	add("off", "Exact folds", 4*modes[modeBulges] < motion.Draws, "what the folds are off by stays hidden in the middle.", "the folds add up: keep each within 0.3 mm, zigzag the strip, or fold on printed lines.")
	j := w.join(g)
	add("length", "Length of paper", len(j.Pieces) == 1, j.Says, j.Says)
	add("alike", "Numbers", true, "each face has six triangles, worked out from how the ring is folded.", "")
	return out
}
