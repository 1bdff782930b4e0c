package bird

import (
	"context"
	"fmt"
	"math"

	"golang.org/x/sync/errgroup"

	"tussock/internal/body"
	"tussock/internal/draw"
	"tussock/internal/geom"
	"tussock/internal/motion"
	"tussock/internal/motion/flap/hump"
	"tussock/internal/say"
)

// BirdDrawing is a bird as its tail is pulled.
type BirdDrawing struct {
	Curve   []PullSpot  `json:"curve"`   // pull against swing, until it binds
	Band    []PullBand  `json:"band"`    // eight of ten birds and hands
	Ghosts  []PullGhost `json:"ghosts"`  // earlier set-ups
	PullMM  float64     `json:"pull_mm"` // how far it is pulled
	RestDeg float64     `json:"rest_deg"`
	Floor   float64     `json:"floor_deg"`   // the least that the thickness of the hump allows
	Ceiling float64     `json:"ceiling_deg"` // the most that the hump opens to
	BindsBy string      `json:"binds_by"`    // what holds it there
	BindsMM float64     `json:"binds_mm"`    // the pull at which it does
	Frames  []BeatFrame `json:"frames"`      // the toy from rest to the end of the pull
}

// PullSpot is a pull and what it comes to.
type PullSpot struct {
	PullMM   float64 `json:"pull_mm"`
	OpenDeg  float64 `json:"open_deg"`  // between both ridges
	SwingDeg float64 `json:"swing_deg"` // of each wing, from rest
	TipMM    float64 `json:"tip_mm"`
	ForceN   float64 `json:"force_n"`
}

// PullBand is the swing of eight of ten at a pull.
type PullBand struct {
	PullMM float64 `json:"pull_mm"`
	Lo     float64 `json:"lo"`
	Hi     float64 `json:"hi"`
}

// PullGhost is the curve of an earlier set-up.
type PullGhost struct {
	Name  string     `json:"name"`
	Curve []PullSpot `json:"curve"`
}

// BeatFrame is the toy at a moment of a beat.
type BeatFrame struct {
	PullSpot
	Front draw.Picture `json:"front"`
	Side  draw.Picture `json:"side"`
	Hump  HumpLines    `json:"hump"` // the hump alone, from its side
}

// HumpLines is the hump from its side: where both ridges end, and where the hands are, mm
// from the hump, x along the bird and y up.
type HumpLines struct {
	Neck HumpPlace `json:"neck"`
	Tail HumpPlace `json:"tail"`
	Hold HumpPlace `json:"hold"`
	Pull HumpPlace `json:"pull"`
}

// HumpPlace is a place beside the hump, mm.
type HumpPlace struct {
	X float64 `json:"x"`
	Y float64 `json:"y"`
}

const curvePoints, bandPoints, framesDrawn = 48, 20, 9

// spread is what many beats come to.
type spread struct {
	swing, tip, force motion.Range
	modes             map[string]int
	by                map[bind]int
	all               []beat
}

func (w *Workbench) spread(s set) spread {
	out := spread{modes: map[string]int{}, by: map[bind]int{}, all: w.scatter(s, motion.Whole)}
	var swing, tip, force []float64
	for _, b := range out.all {
		swing, tip, force = append(swing, geom.Deg(b.swing)), append(tip, b.tip*1e3), append(force, b.force)
		out.modes[b.mode]++
		if b.bound {
			out.by[b.by]++
		}
	}
	out.swing, out.tip, out.force = motion.RangeOf(swing), motion.RangeOf(tip), motion.RangeOf(force)
	return out
}

func (s spread) usual() string { return motion.Shares(s.modes, 1)[0].Mode }

func (s spread) first() motion.Outcome { return s.swing.Outcome(Swing, "Swing of a wing", "deg", 0) }

// Predict pulls a set-up.
func (w *Workbench) Predict(ctx context.Context, knobs map[string]float64, ghosts []motion.Ghost) (motion.Prediction, error) {
	out := motion.Prediction{Readings: []motion.Reading{}, Checks: []motion.Check{}, Modes: []motion.Share{}, Outcomes: []motion.Outcome{}, Tries: motion.Draws}
	s, err := w.at(ctx, knobs)
	if err == ErrNoBird { //nolint:errorlint // Of returns it bare
		out.Mode, out.ModeWords = "no hump", way.Words.Unlike
		return out, nil
	}
	if err != nil {
		return out, err
	}
	out.Works = true
	all := w.spread(s)
	out.Mode, out.Modes = all.usual(), motion.Shares(all.modes, motion.Draws)
	out.Outcomes = []motion.Outcome{all.first(), all.tip.Outcome(Tip, "Tip travels", "mm", 0)}
	out.ModeWords = w.modeWords(s, all)
	d := w.drawing(s)
	for _, h := range ghosts {
		if ctx.Err() != nil {
			return out, ctx.Err()
		}
		was, err := w.at(ctx, h.Knobs)
		if err != nil {
			continue // it cannot be folded on this sheet: no ghost
		}
		d.Ghosts = append(d.Ghosts, PullGhost{h.Name, w.curve(was, 24)})
	}
	out.Drawing = &motion.Drawing{Kind: "beat", Data: d}
	out.Readings = w.readings(s, all)
	out.Checks = w.checks(knobs, s)
	return out, nil
}

// Outlook is the swing alone.
func (w *Workbench) Outlook(ctx context.Context, knobs map[string]float64) (motion.Outlook, error) {
	s, err := w.at(ctx, knobs)
	if err != nil {
		return motion.Outlook{}, err
	}
	all := w.spread(s)
	return motion.Outlook{Outcome: all.first(), Mode: all.usual()}, nil
}

func (w *Workbench) modeWords(s set, all spread) string {
	b := w.beat(s, w.PullM, w.part())
	at := s.pullFor(s.ceiling, w.part()) * 1e3
	says := fmt.Sprintf("A pull of %s opens the hump from %s° to %s°, and each wing swings by %s°.", say.MM(w.PullM*1e3, 0), say.Decimal(2*geom.Deg(s.rest), 0), say.Decimal(2*geom.Deg(b.phi), 0), say.Decimal(geom.Deg(b.swing), 0))
	if b.bound {
		return says + fmt.Sprintf(" It binds after %s: %s.", say.MM(at, 0), holds(s.binds))
	}
	return says + fmt.Sprintf(" It would bind after %s: %s.", say.MM(at, 0), holds(s.binds))
}

func holds(b bind) string {
	switch b {
	case byNeck, byTail:
		return string(b) + " gives no more"
	case byWing:
		return string(b) + " are too straight to follow"
	case byHands:
		return string(b) + ", and pull on paper alone"
	}
	return string(b)
}

// curve is pull against swing until it binds.
func (w *Workbench) curve(s set, n int) []PullSpot {
	out := []PullSpot{}
	for i := range n {
		phi := s.rest + (s.ceiling-s.rest)*float64(i)/float64(n-1)
		out = append(out, w.spot(s, phi))
	}
	return out
}

func (w *Workbench) spot(s set, phi float64) PullSpot {
	from, lam := s.wing(s.rest), s.wing(phi)
	gain, ok := hump.Gain(w.Beats, hump.Frequency(s.stiffness, s.weight, s.WingMM*mm))
	if !ok {
		gain = 1 / (1 - 0.36)
	}
	f := s.force(math.Max(phi, s.rest+1e-3))
	if math.IsInf(f, 1) {
		f = 0
	}
	return PullSpot{round(s.pullFor(phi, w.part()) * 1e3), round(2 * geom.Deg(phi)), round(geom.Deg(lam - from)), round(hump.Tip(s.WingMM, from, lam) * gain), round(f)}
}

func round(v float64) float64 { return math.Round(1000*v) / 1000 }

func (w *Workbench) drawing(s set) *BirdDrawing {
	d := &BirdDrawing{Curve: w.curve(s, curvePoints), Band: []PullBand{}, Ghosts: []PullGhost{}, PullMM: w.PullM * 1e3, RestDeg: 2 * geom.Deg(s.rest), Floor: 2 * geom.Deg(s.shut), Ceiling: 2 * geom.Deg(s.ceiling),
		BindsBy: string(s.binds), BindsMM: round(s.pullFor(s.ceiling, w.part()) * 1e3), Frames: []BeatFrame{}}
	most := math.Max(w.PullM*1.25, s.pullFor(s.ceiling, w.part()))
	for k := range bandPoints {
		p := most * float64(k) / (bandPoints - 1)
		v := *w
		v.PullM = p
		var swing []float64
		for _, b := range v.scatter(s, motion.Sample{N: 40}) {
			swing = append(swing, geom.Deg(b.swing))
		}
		r := motion.RangeOf(swing)
		d.Band = append(d.Band, PullBand{round(p * 1e3), round(r.Lo), round(r.Hi)})
	}
	phi, _ := s.opened(w.PullM, w.part())
	from := s.wing(s.rest)
	first := s.pose(0)
	front, side := s.views(first)
	var boxF, boxS [4]float64
	d.Frames = make([]BeatFrame, framesDrawn)
	var g errgroup.Group
	for i := range d.Frames {
		g.Go(func() error {
			at := s.rest + (phi-s.rest)*float64(i)/(framesDrawn-1)
			pose := s.pose(geom.Deg(s.wing(at) - from))
			f := BeatFrame{w.spot(s, at), draw.InSpace(pose, front), draw.InSpace(pose, side), s.lines(at)}
			f.Front.CoM, f.Side.CoM = nil, nil
			ring := s.bindsAt(pose)
			f.Front.Written, f.Side.Written = marked(ring, front), marked(ring, side)
			d.Frames[i] = f
			return nil
		})
	}
	_ = g.Wait() // a picture does not fail
	for _, f := range d.Frames {
		boxF, boxS = draw.Holding(boxF, f.Front.View), draw.Holding(boxS, f.Side.View)
	}
	for i := range d.Frames {
		d.Frames[i].Front.View, d.Frames[i].Side.View = boxF, boxS
	}
	return d
}

// lines is the hump from its side, open by phi, the ridges alike on both sides.
func (s set) lines(phi float64) HumpLines {
	at := func(angle, r float64) HumpPlace {
		sin, cos := math.Sincos(angle)
		return HumpPlace{round(r * sin), round(-r * cos)}
	}
	return HumpLines{Neck: at(phi, s.RidgeMM), Tail: at(-phi, s.RidgeMM), Hold: at(phi, s.HoldM*1e3), Pull: at(-phi-s.Lean, s.PullM*1e3)}
}

// bindsAt is the spot that holds the hump from opening further.
func (s set) bindsAt(p body.Pose) []geom.Vec3 {
	r := s.replay
	top := r.Landmarks[r.Pattern.Head(headHump)]
	at := top
	switch s.binds {
	case byNeck:
		at = ridgeEnd(p.State, top, r.Landmarks[r.Pattern.Head(headNeck)])
	case byTail:
		at = ridgeEnd(p.State, top, r.Landmarks[r.Pattern.Head(headTail)])
	case byWing:
		var out []geom.Vec3
		for _, name := range r.Pattern.Heads(headRoots) {
			for _, q := range r.Lines[name] {
				if v, ok := spot(p, q.Mid()); ok {
					out = append(out, v)
				}
			}
		}
		return out[:min(2, len(out))]
	}
	if v, ok := spot(p, at); ok {
		return []geom.Vec3{v}
	}
	return nil
}

// marked is a ring about spots, as a camera sees them.
func marked(spots []geom.Vec3, c draw.Camera) []draw.Written {
	var out []draw.Written
	for _, v := range spots {
		at := c.Sees(v)
		out = append(out, draw.Written{Text: "◯", Place: []float64{1, 0, 0, 1, at[0], at[1]}, SizeMM: ringMM})
	}
	return out
}

// ringMM is the size of the ring where it binds.
const ringMM = 9.0
