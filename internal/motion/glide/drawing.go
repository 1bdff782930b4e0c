package glide

import (
	"context"
	"encoding/json"
	"math"
	"sync"

	"tussock/internal/motion"

	"tussock/internal/motion/glide/flight"
)

// FlightDrawing is a predicted flight to be drawn. X is ahead, Y to the right, Z up from the
// floor, m.
type FlightDrawing struct {
	Path      []FlightSpot       `json:"path"`    // the middle one of the scattered throws that fly in the usual mode
	Perfect   []FlightSpot       `json:"perfect"` // the throw just as meant, of a toy just as meant
	Band      []flight.BandPoint `json:"band"`    // where eight of ten throws pass
	Ghosts    []GhostPath        `json:"ghosts"`
	End       string             `json:"end"`
	RopeOverM *float64           `json:"rope_over_m,omitempty"` // how far over the rope; under is negative
	Middle    FlightEnd          `json:"middle"`                // what came of the path
	Meant     FlightEnd          `json:"meant"`                 // what came of the perfect throw
}

// FlightSpot is a moment of a flight.
type FlightSpot struct {
	T       float64 `json:"t"`
	X       float64 `json:"x"`
	Y       float64 `json:"y"`
	Z       float64 `json:"z"`
	Speed   float64 `json:"speed"`
	Attack  float64 `json:"attack"` // angle of attack, degrees
	Pitch   float64 `json:"pitch"`  // nose above level, degrees
	Bank    float64 `json:"bank"`   // right wing down, degrees
	Heading float64 `json:"heading"`
}

// GhostPath is the path of an earlier set-up.
type GhostPath struct {
	Name      string       `json:"name"`
	DistanceM float64      `json:"distance_m"`
	Mode      string       `json:"mode"`
	Path      []FlightSpot `json:"path"`
}

// FlightEnd is what came of one throw.
type FlightEnd struct {
	DistanceM  float64 `json:"distance_m"`
	TimeS      float64 `json:"time_s"`
	HighestM   float64 `json:"highest_m"`
	DriftM     float64 `json:"drift_m"`
	HeadingDeg float64 `json:"heading_deg"`
	Mode       string  `json:"mode"`
}

func endOf(f flight.Flight) FlightEnd {
	return FlightEnd{f.DistanceM, f.TimeS, f.HighestM, f.DriftM, f.HeadingDeg, string(f.Mode)}
}

func distanceOf(s flight.Spread) motion.Outcome {
	return s.Distance.Outcome(Distance, "Distance", "m", 1)
}

// Predict throws a set-up: its numbers and its flight. Numbers and throws rest on the
// same model, which nothing changes.
func (w *Workbench) Predict(ctx context.Context, knobs map[string]float64, ghosts []motion.Ghost) (motion.Prediction, error) {
	out := motion.Prediction{Readings: []motion.Reading{}, Checks: []motion.Check{}, Tries: motion.Draws}
	w = w.asked(ctx)
	m, err := w.Model(knobs)
	if err != nil {
		return out, err
	}
	toy, err := w.Toy(knobs)
	if err != nil {
		return out, err
	}
	out.Works = toy.Glider
	var numbers sync.WaitGroup
	if toy.Glider {
		numbers.Go(func() { out.Readings = readingsOf(m) })
		out.Checks = w.preflight(knobs, m)
	}
	t := w.throw(m)
	out.Offered = map[string]float64{}
	if w.Throw.SpeedMS == 0 {
		out.Offered[SpeedOfThrow] = t.SpeedMS
	}
	throws := m.Throws(t, w.Room, w.Scatter, 0, motion.Draws, true)
	s := flight.Told(throws)
	f := s.Middle(throws)
	meant, perfect := w.meant(m)
	d := &FlightDrawing{Path: drawn(f.Path), Perfect: drawn(perfect), Ghosts: []GhostPath{}, End: string(f.End), Middle: endOf(f.Flight), Meant: endOf(meant), Band: s.Band}
	if !math.IsNaN(f.RopeOverM) {
		d.RopeOverM = &f.RopeOverM
	}
	usual := s.Usual()
	out.Mode, out.ModeWords = string(usual), usual.Words()
	out.Outcomes = []motion.Outcome{distanceOf(s), s.Time.Outcome(Time, "Time", "s", 1), s.Highest.Outcome("highest", "Highest", "m", 1),
		s.Drift.Outcome("drift", "Drift", "m", 1, "left", "right", "straight")}
	out.Modes = motion.Shares(s.Modes, motion.Draws)
	for _, g := range ghosts {
		if err := ctx.Err(); err != nil {
			numbers.Wait()
			return out, err
		}
		p, err := w.ghost(g.Knobs)
		if err != nil {
			continue // it cannot be folded on this sheet: no ghost
		}
		p.Name = g.Name
		d.Ghosts = append(d.Ghosts, p)
	}
	out.Drawing = &motion.Drawing{Kind: "flight", Data: d}
	out.Loop = motion.Looped(len(d.Path), func(i int) motion.Moment {
		p := d.Path[i]
		return motion.Moment{T: p.T, Along: p.X, Up: p.Z, Pitch: p.Pitch}
	})
	numbers.Wait()
	return out, nil
}

// Outlook is the distance alone.
func (w *Workbench) Outlook(ctx context.Context, knobs map[string]float64) (motion.Outlook, error) {
	m, err := w.asked(ctx).Model(knobs)
	if err != nil {
		return motion.Outlook{}, err
	}
	s := m.Spread(w.throw(m), w.Room, w.Scatter, motion.Draws)
	return motion.Outlook{Outcome: distanceOf(s), Mode: string(s.Usual())}, nil
}

// ghost is the path of an earlier set-up. It stays on the mat while the toy is set, so it is
// kept.
func (w *Workbench) ghost(knobs map[string]float64) (GhostPath, error) {
	key, err := json.Marshal([]any{knobs, w.conditions}) // map keys are sorted
	if err != nil {
		return GhostPath{}, err
	}
	if p, kept := w.ghosts.Get(string(key)); kept {
		return p, nil
	}
	m, err := w.Model(knobs)
	if err != nil {
		return GhostPath{}, err
	}
	throws := m.Throws(w.throw(m), w.Room, w.Scatter, 0, motion.Draws, true)
	s := flight.Told(throws)
	p := GhostPath{DistanceM: s.Distance.Middle, Mode: string(s.Usual()), Path: drawn(s.Middle(throws).Path)}
	w.ghosts.Add(string(key), p)
	return p, nil
}

// drawnSamples is how many moments of a flight are drawn at most.
const drawnSamples = 160

// meant is the throw just as meant.
func (w *Workbench) meant(m *flight.Model) (flight.Flight, []flight.Sample) {
	path := make([]flight.Sample, 0, 3200)
	f := m.Fly(w.throw(m), w.Room, &path)
	return f, path
}

// drawn are the moments of a path that are drawn.
func drawn(path []flight.Sample) []FlightSpot {
	every := (len(path) + drawnSamples - 1) / drawnSamples
	out := []FlightSpot{}
	// A millimetre is kept: it is drawn.
	r := func(v float64) float64 { return math.Round(v*1000) / 1000 }
	for i, p := range path {
		if i%every == 0 || i == len(path)-1 {
			out = append(out, FlightSpot{r(p.T), r(p.X), r(p.Y), r(p.Z), r(p.Speed), r(p.Attack), r(p.Pitch), r(p.Bank), r(p.Heading)})
		}
	}
	return out
}
