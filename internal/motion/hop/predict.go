package hop

import (
	"context"
	"fmt"
	"math"
	"runtime"
	"slices"

	"golang.org/x/sync/errgroup"

	"tussock/internal/geom"
	"tussock/internal/motion"
	"tussock/internal/motion/hop/leap"
	"tussock/internal/say"
	"tussock/internal/sequence"
)

// LeapDrawing is a predicted hop to be drawn from the side: lengths m, x ahead of where
// the catch stood, y over the table.
type LeapDrawing struct {
	BodyM    float64        `json:"body_m"`   // hip to nose
	MiddleM  float64        `json:"middle_m"` // hip to catch
	FootM    float64        `json:"foot_m"`   // catch to rear edge
	CoMM     float64        `json:"com_m"`    // centre of mass of the body, ahead of the hip
	Flipped  bool           `json:"flipped"`  // its second fold lies behind the hip
	Backward bool           `json:"backward"` // it leaps away from its nose
	Unsure   bool           `json:"unsure"`   // which way it goes cannot be told
	Rest     PushFrame      `json:"rest"`     // as it stands before it is pressed
	Push     []PushFrame    `json:"push"`     // from letting go to leaving the table
	Path     []LeapSpot     `json:"path"`     // the middle one of the scattered hops that go the usual way
	Perfect  []LeapSpot     `json:"perfect"`  // the hop just as meant, of a toy just as meant
	Band     []LeapBand     `json:"band"`     // where eight of ten hops pass
	Ghosts   []LeapGhost    `json:"ghosts"`
	LengthM  float64        `json:"length_m"`
	HeightM  float64        `json:"height_m"`
	TimeS    float64        `json:"time_s"`
	Feet     []Touch        `json:"feet"`     // what touches the table, from above
	Outline  [][][2]float64 `json:"outline"`  // the toy from above, mm ahead of the hip and to the right
	PressMM  float64        `json:"press_mm"` // where the finger presses, ahead of the hip
	WholeMM  float64        `json:"whole_mm"` // centre of mass of the whole toy, ahead of the hip
	Hull     [][2]float64   `json:"hull"`     // the polygon of what touches the table
	Frames   []LeapFrame    `json:"frames"`   // the toy moment by moment
}

// LeapBand is where eight of ten hops pass at a distance.
type LeapBand struct {
	X  float64 `json:"x"`
	Lo float64 `json:"lo"`
	Hi float64 `json:"hi"`
}

// LeapGhost is the path of an earlier set-up.
type LeapGhost struct {
	Name string     `json:"name"`
	Path []LeapSpot `json:"path"`
}

// Hops that the line of an earlier set-up rests on: no number is told of it.
const ghostHops = 40

// Points of a band, moments of a path.
const bandPoints, drawnSpots = 32, 90

// spread is what many hops come to.
type spread struct {
	length, height, flips, feet, speed, angle, push motion.Range
	over                                            motion.Range
	inRing, overGap, overRope                       float64
	modes                                           map[string]int
	middle                                          hopped // the hop to draw
	band                                            []LeapBand
}

// How a hop goes.
const (
	modeStays    = "stays where it is"
	modeCaught   = "caught by the finger"
	modeUp       = "straight up"
	modeBackward = "leaps backward"
	modeForward  = "leaps forward"
)

// modeOf says how a hop goes.
func (w *Workbench) modeOf(t Toy, a Arc) string {
	switch {
	case !a.Left || a.HeightM < 0.01 && math.Abs(a.LengthM) < 0.01:
		return modeStays
	case t.Overhang()*1e3 > unpredictableMM:
		return modeCaught
	case math.Abs(a.LengthM) < 0.25*a.HeightM:
		return modeUp
	case a.LengthM < 0:
		return modeBackward
	}
	return modeForward
}

func (w *Workbench) spread(g Geometry, set SpringSet, n int, band bool) spread {
	out := spread{modes: map[string]int{}}
	var long, high, flips, feet, speed, angle, push, over []float64
	var paths [][]LeapSpot
	far := 0.0
	spots := 0
	if band {
		spots = 40
	}
	hops := w.scatter(g, set, motion.Sample{N: n}, true)
	arcs := leaps(hops, spots)
	for i, q := range hops {
		a := arcs[i]
		long, high, flips, feet = append(long, a.LengthM), append(high, a.HeightM), append(flips, a.HalfFlips), append(feet, 100*a.FeetShare)
		v := math.Hypot(a.Vx, a.Vy)
		speed, angle, push = append(speed, v), append(angle, geom.Deg(math.Atan2(a.Vy, math.Abs(a.Vx)))), append(push, a.T)
		out.modes[w.modeOf(q.toy, a)]++
		if math.Abs(math.Abs(a.LengthM)-w.RingAtM) <= w.RingM {
			out.inRing += 1 / float64(n)
		}
		if math.Abs(a.LengthM) >= w.GapM {
			out.overGap += 1 / float64(n)
		}
		top := 0.0
		if !math.IsNaN(a.AtRopeM) {
			top = a.AtRopeM
		}
		over = append(over, top-w.RopeM)
		if top > w.RopeM {
			out.overRope += 1 / float64(n)
		}
		if band {
			paths = append(paths, a.Path)
			far = math.Max(far, math.Abs(a.Far)+math.Abs(a.LengthM))
		}
	}
	out.length, out.height, out.flips, out.feet = motion.RangeOf(slices.Clone(long)), motion.RangeOf(high), motion.RangeOf(flips), motion.RangeOf(feet)
	out.speed, out.angle, out.push, out.over = motion.RangeOf(speed), motion.RangeOf(angle), motion.RangeOf(push), motion.RangeOf(over)
	nearest := math.Inf(1)
	for i, q := range hops {
		if d := math.Abs(long[i] - out.length.Middle); w.modeOf(q.toy, arcs[i]) == out.usual() && d < nearest {
			nearest, out.middle = d, q
		}
	}
	if band {
		out.band = bandOf(paths, far, out.length.Middle < 0, -w.DropM)
	}
	return out
}

// usual is the mode that most hops have.
func (s spread) usual() string { return motion.Shares(s.modes, 1)[0].Mode }

// leaps carries hops out, as many at a time as there are processors.
func leaps(hops []hopped, spots int) []Arc {
	out := make([]Arc, len(hops))
	var g errgroup.Group
	workers := runtime.GOMAXPROCS(0)
	for k := range workers {
		g.Go(func() error {
			for i := k; i < len(hops); i += workers {
				q := hops[i]
				out[i] = q.toy.Fly(q.toy.Launch(q.trial, nil), q.trial, spots)
			}
			return nil
		})
	}
	_ = g.Wait() // a leap does not fail
	return out
}

// bandOf is where eight of ten paths pass; those that have landed are on the floor.
func bandOf(paths [][]LeapSpot, far float64, back bool, floor float64) []LeapBand {
	out := []LeapBand{}
	way := 1.0
	if back {
		way = -1
	}
	start := math.Inf(1)
	for _, p := range paths {
		if len(p) > 0 {
			start = math.Min(start, way*p[0].X)
		}
	}
	if math.IsInf(start, 1) {
		return out
	}
	for k := range bandPoints {
		x := start + (far-start)*float64(k)/(bandPoints-1)
		var y []float64
		for _, p := range paths {
			y = append(y, passes(p, x, way, floor))
		}
		r := motion.RangeOf(y)
		out = append(out, LeapBand{way * x, r.Lo, r.Hi})
		if r.Hi <= floor {
			break
		}
	}
	return out
}

func passes(p []LeapSpot, x, way, floor float64) float64 {
	for i := 1; i < len(p); i++ {
		a, b := way*p[i-1].X, way*p[i].X
		if b >= x && b > a {
			return p[i-1].Y + clamp((x-a)/(b-a), 0, 1)*(p[i].Y-p[i-1].Y)
		}
	}
	return floor
}

// Predict hops a set-up: its numbers and its arc.
func (w *Workbench) Predict(ctx context.Context, knobs map[string]float64, ghosts []motion.Ghost) (motion.Prediction, error) {
	out := motion.Prediction{Readings: []motion.Reading{}, Checks: []motion.Check{}, Modes: []motion.Share{}, Outcomes: []motion.Outcome{}, Tries: motion.Draws}
	w = w.asked(ctx)
	t, g, set, err := w.toyAt(knobs)
	if err == ErrNoSpring { //nolint:errorlint // Of returns it bare
		out.Mode, out.ModeWords = "no pleat", way.Words.Unlike
		return out, nil
	}
	if err != nil {
		return out, err
	}
	out.Works = true
	s := w.spread(g, set, motion.Draws, true)
	_, d := drawn(s.middle.toy, s.middle.trial)
	_, meant := drawn(t, w.trial(set))
	d.Perfect, d.BodyM, d.MiddleM, d.FootM = meant.Path, t.BodyM, t.MiddleM, t.FootM
	d.CoMM, d.Band, d.Ghosts, d.Feet, d.PressMM, d.WholeMM = t.CoMAhead, s.band, []LeapGhost{}, g.Contact, w.Trigger.aheadMM, g.WholeCoMMM
	d.Outline = [][][2]float64{}
	for _, p := range g.Outline {
		var q [][2]float64
		for _, v := range p {
			q = append(q, [2]float64{leap.Round3(v.X), leap.Round3(v.Y)})
		}
		d.Outline = append(d.Outline, q)
	}
	d.Hull = [][2]float64{}
	for _, v := range g.hull() {
		d.Hull = append(d.Hull, [2]float64{leap.Round3(v.X), leap.Round3(v.Y)})
	}
	for _, h := range ghosts {
		if err := ctx.Err(); err != nil {
			return out, err
		}
		_, gg, gs, err := w.toyAt(h.Knobs)
		if err != nil {
			continue // it cannot be folded on this sheet: no ghost
		}
		gone := w.spread(gg, gs, ghostHops, false)
		_, gd := drawn(gone.middle.toy, gone.middle.trial)
		d.Ghosts = append(d.Ghosts, LeapGhost{h.Name, gd.Path})
	}
	out.Drawing = &motion.Drawing{Kind: "leap", Data: d}
	out.Loop = motion.Looped(len(d.Path), func(i int) motion.Moment {
		p := d.Path[i]
		return motion.Moment{T: p.T, Along: p.X, Up: p.Y, Pitch: p.Pitch}
	})
	out.Mode = s.usual()
	out.ModeWords = w.modeWords(t, g, s)
	out.Readings = w.readings(t, g, set, s)
	out.Outcomes = outcomes(s)
	if w.RopeAtM > 0 {
		out.Outcomes = append(out.Outcomes, s.over.Outcome("over", "Over the rope", "cm", 1, "under it", "over it"))
	}
	out.Checks = w.checks(knobs, t, g)
	out.Modes = motion.Shares(s.modes, motion.Draws)
	return out, nil
}

// lengthOf is the outcome that counts most.
func lengthOf(s spread) motion.Outcome {
	return s.length.Outcome(Length, "Distance", "cm", 1, "back", "ahead")
}

// mostFlips is the number of half flips beyond which none is promised.
const mostFlips = 3

func outcomes(s spread) []motion.Outcome {
	flips := s.flips.Outcome(HalfFlips, "Half flips", "", 1)
	flips.Most = mostFlips
	return []motion.Outcome{lengthOf(s), s.height.Outcome(Height, "Height", "cm", 1), flips, s.feet.Outcome("feet", "Lands on its feet", "%", 0)}
}

// Outlook is the distance alone.
func (w *Workbench) Outlook(ctx context.Context, knobs map[string]float64) (motion.Outlook, error) {
	out, _, err := w.asked(ctx).outlook(knobs)
	return out, err
}

// outlook is that, with all the rest that scattered hops come to.
func (w *Workbench) outlook(knobs map[string]float64) (motion.Outlook, spread, error) {
	_, g, set, err := w.toyAt(knobs)
	if err != nil {
		return motion.Outlook{}, spread{}, err
	}
	s := w.spread(g, set, motion.Draws, false)
	return motion.Outlook{Outcome: lengthOf(s), Mode: s.usual()}, s, nil
}

// drawn hops a toy and notes how.
func drawn(t Toy, tr Trial) (Arc, *LeapDrawing) {
	var moments []Moment
	l := t.Launch(tr, &moments)
	a := t.Fly(l, tr, drawnSpots)
	d := &LeapDrawing{BodyM: t.BodyM, MiddleM: t.MiddleM, FootM: t.FootM, Backward: a.LengthM < 0, Flipped: t.Backward, Unsure: t.Overhang()*1e3 > unpredictableMM,
		LengthM: a.LengthM, HeightM: a.HeightM, TimeS: a.TimeS, Push: []PushFrame{}, Path: []LeapSpot{}}
	every := max(1, len(moments)/24)
	for i, m := range moments {
		if i%every == 0 || i == len(moments)-1 {
			d.Push = append(d.Push, PushFrame{T: m.T, X: m.X, Open: geom.Deg(m.Theta), Pitch: geom.Deg(m.Alpha)})
		}
	}
	open, pitch := t.Rest()
	d.Rest = PushFrame{Open: geom.Deg(open), Pitch: geom.Deg(pitch)}
	for _, p := range a.Path {
		d.Path = append(d.Path, LeapSpot{T: leap.Round5(p.T), X: leap.Round5(p.X), Y: leap.Round5(p.Y), Pitch: leap.Round3(p.Pitch)})
	}
	d.Frames = t.Frames(d.Rest, d.Push, d.Path)
	return a, d
}

// modeWords say what is to be expected, and of what is in the way.
func (w *Workbench) modeWords(t Toy, g Geometry, s spread) string {
	words := "It leaps the way its nose points: the second fold lies ahead of the hip."
	if g.Backward {
		words = "It leaps away from its nose: the second fold lies behind the hip."
	}
	if (s.length.Middle < 0) != g.Backward && math.Abs(s.length.Middle) > 0.005 {
		words = "It is thrown over against the side of its second fold: so much hip spring on so short a body. Trust your hops here, not the model."
	}
	if t.Overhang()*1e3 > unpredictableMM {
		words = "The finger catches the foot; which way it goes cannot be told."
	}
	if s.flips.Middle > mostFlips {
		words += " How often it turns is not to be trusted beyond one and a half turns."
	}
	if w.RopeAtM > 0 {
		words += fmt.Sprintf(" It clears the rope in %.0f of 100 hops.", 100*s.overRope)
	}
	if w.GapM > 0 {
		words += fmt.Sprintf(" It leaps the gap in %.0f of 100.", 100*s.overGap)
	}
	if w.RingAtM > 0 {
		words += fmt.Sprintf(" It comes down in the ring in %.0f of 100.", 100*s.inRing)
	}
	return words
}

// checks are what to look at before the first hop.
func (w *Workbench) checks(knobs map[string]float64, t Toy, g Geometry) []motion.Check {
	over := g.FootMM - g.MiddleMM
	o := motion.Check{ID: "overhang", Title: "Overhang", OK: over <= 0.05, Fix: []motion.Change{}}
	if o.OK {
		o.Says = fmt.Sprintf("the rear edge ends %s short of the hip fold, so the finger slides off freely.", say.MM(-over, 1))
	} else {
		o.Says = fmt.Sprintf("the rear edge passes the hip fold by %s and will catch the finger. Move the last fold by %s: the overhang shifts by twice as much.", say.MM(over, 1), moved(over, wantedOverhangMM))
		if c, ok := w.toOverhang(knobs, wantedOverhangMM); ok {
			o.Fix, o.Do = []motion.Change{c}, "Move the last fold by "+moved(over, wantedOverhangMM)
		}
	}
	f := motion.Check{ID: "foot", Title: "Foot", OK: g.FootMM >= g.MiddleMM/2, Fix: []motion.Change{}, Says: "long enough to push and not to fold under."}
	if !f.OK {
		f.Says = fmt.Sprintf("only %s long against %s from hip to second fold: it folds under instead of pushing. It needs half of that at least.", say.MM(g.FootMM, 1), say.MM(g.MiddleMM, 1))
		if c, ok := w.toOverhang(knobs, wantedOverhangMM); ok {
			f.Fix, f.Do = []motion.Change{c}, "Put the last fold near the middle of the flap"
		}
	}
	deg := geom.Deg(t.Hip.Rest)
	p := motion.Check{ID: "opening", Title: "Pleat", OK: deg >= overPressedDeg, Fix: []motion.Change{}, Says: fmt.Sprintf("opens to about %.0f° by itself.", deg)}
	if !p.OK {
		p.Says = fmt.Sprintf("opens to about %.0f° only: pressed so hard it stays shut. Open it and roll it over a pencil.", deg)
		p.Fix = []motion.Change{w.Change(knobs, KnobHipRadius, 1-w.Value(knobs, KnobHipRadius)), w.Change(knobs, KnobCatchRadius, 1-w.Value(knobs, KnobCatchRadius))}
		p.Do = "Make both folds soft"
	}
	out := []motion.Check{o, f, p, w.pressed(knobs)}
	if says := unchecked(g); says != "" {
		out = append(out, motion.Check{ID: "range", Title: "Outside of what was checked", Fix: []motion.Change{}, Says: says})
	}
	if g.SlantDeg > 10 {
		out = append(out, motion.Check{ID: "slant", Title: "Slanting pleat", Fix: []motion.Change{}, Says: fmt.Sprintf("the two folds stand %.0f° to each other; it will leap to a side, and that is not predicted.", g.SlantDeg)})
	}
	return out
}

// The model was checked on pleats of so many layers, and from hip to second fold so long
// against the body.
const checkedLayersLo, checkedLayersHi, checkedMiddleLo, checkedMiddleHi = 3.5, 8.5, 0.12, 0.30

// unchecked says where a toy lies outside of what the model was checked on.
func unchecked(g Geometry) string {
	var out string
	if g.LayersMean < checkedLayersLo || g.LayersMean > checkedLayersHi {
		out = fmt.Sprintf("a pleat of %.0f layers, checked were 4 to 8. ", g.LayersMean)
	}
	if part := g.MiddleMM / g.BodyMM; part < checkedMiddleLo || part > checkedMiddleHi {
		out += fmt.Sprintf("from hip to second fold it is %.0f %% of the body, checked were 12 to 30. ", 100*part)
	}
	if out == "" {
		return ""
	}
	return out + "Trust your own hops more than the number."
}

// pressed compares how hard both folds are pressed with what the pattern says.
func (w *Workbench) pressed(knobs map[string]float64) motion.Check {
	c := motion.Check{ID: "pressed", Title: "Pressed", OK: true, Fix: []motion.Change{}}
	var has, asked []string
	for _, name := range []string{KnobHipRadius, KnobCatchRadius} {
		k := w.Pattern.Knobs[w.Pattern.KnobIndex(name)]
		v := w.Value(knobs, name)
		has, asked = append(has, calledRadius(k, v)), append(asked, calledRadius(k, k.Default))
		if math.Abs(v-k.Default) > 0.05 {
			c.OK = false
			c.Fix = append(c.Fix, w.Change(knobs, name, k.Default-v))
		}
	}
	if c.OK {
		c.Says = fmt.Sprintf("as the pattern has it, %s and %s.", has[0], has[1])
		return c
	}
	c.Says = fmt.Sprintf("%s and %s, where the pattern has %s and %s. Folders disagree: your hops decide.", has[0], has[1], asked[0], asked[1])
	c.Do = "Press them as the pattern has it"
	return c
}

// calledRadius is the name nearest to a radius.
func calledRadius(k sequence.Knob, mm float64) string {
	best := ""
	gap := math.Inf(1)
	for _, n := range k.Named {
		if d := math.Abs(math.Log(math.Max(mm, 0.05) / n.Value)); d < gap {
			best, gap = n.Label, d
		}
	}
	return best
}
