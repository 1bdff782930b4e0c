package glide

import (
	"context"
	"math"
	"sync"

	"tussock/internal/motion"
)

// FlightDrawing is a predicted flight to be drawn. X is ahead, Y to the right, Z up from the
// floor, m.
type FlightDrawing struct {
	Path      []FlightSpot `json:"path"`
	Band      []BandPoint  `json:"band"` // where eight of ten throws pass
	Ghosts    []GhostPath  `json:"ghosts"`
	End       string       `json:"end"`
	RopeOverM *float64     `json:"rope_over_m,omitempty"` // how far over the rope; under is negative
	Nominal   Nominal      `json:"nominal"`               // the throw without scatter, drawn as the path
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

// Nominal is the throw without scatter.
type Nominal struct {
	DistanceM  float64 `json:"distance_m"`
	TimeS      float64 `json:"time_s"`
	HighestM   float64 `json:"highest_m"`
	DriftM     float64 `json:"drift_m"`
	HeadingDeg float64 `json:"heading_deg"`
}

func distanceOf(s Spread) motion.Outcome {
	return s.Distance.Outcome(Distance, "Distance", "m", 1)
}

// Predict throws a set-up: its numbers and its flight. Numbers and throws rest on the
// same model, which nothing changes.
func (w *Workbench) Predict(ctx context.Context, knobs map[string]float64, ghosts []motion.Ghost) (motion.Prediction, error) {
	out := motion.Prediction{Readings: []motion.Reading{}, Checks: []motion.Check{}, Tries: BandThrows}
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
		numbers.Go(func() { out.Readings = m.Readings() })
	}
	f, path := w.drawn(m)
	d := &FlightDrawing{Path: path, Ghosts: []GhostPath{}, End: string(f.End), Nominal: Nominal{f.DistanceM, f.TimeS, f.HighestM, f.DriftM, f.HeadingDeg}}
	if !math.IsNaN(f.RopeOverM) {
		d.RopeOverM = &f.RopeOverM
	}
	s := m.Spread(w.Throw, w.Room, w.Scatter, BandThrows, bandSeed, true)
	if d.Band = s.Band; d.Band == nil {
		d.Band = []BandPoint{}
	}
	out.Mode, out.ModeWords = string(f.Mode), f.Mode.Words()
	out.Outcomes = []motion.Outcome{distanceOf(s), s.Time.Outcome(Time, "Time", "s", 1), s.Highest.Outcome("highest", "Highest", "m", 1),
		s.Drift.Outcome("drift", "Drift", "m", 1, "left", "right", "straight")}
	out.Modes = motion.Shares(s.Modes, BandThrows)
	for _, g := range ghosts {
		if err := ctx.Err(); err != nil {
			numbers.Wait()
			return out, err
		}
		n, err := w.Model(g.Knobs)
		if err != nil {
			continue // it cannot be folded on this sheet: no ghost
		}
		gf, gp := w.drawn(n)
		d.Ghosts = append(d.Ghosts, GhostPath{g.Name, gf.DistanceM, string(gf.Mode), gp})
	}
	out.Drawing = &motion.Drawing{Kind: "flight", Data: d}
	numbers.Wait()
	return out, nil
}

// Outlook is the distance alone.
func (w *Workbench) Outlook(ctx context.Context, knobs map[string]float64) (motion.Outlook, error) {
	m, err := w.asked(ctx).Model(knobs)
	if err != nil {
		return motion.Outlook{}, err
	}
	s := m.Spread(w.Throw, w.Room, w.Scatter, BandThrows, bandSeed, false)
	return motion.Outlook{Outcome: distanceOf(s), Mode: string(m.Fly(w.Throw, w.Room, nil).Mode)}, nil
}

// drawnSamples is how many moments of a flight are drawn at most.
const drawnSamples = 160

func (w *Workbench) drawn(m *Model) (Flight, []FlightSpot) {
	path := make([]Sample, 0, 3200)
	f := m.Fly(w.Throw, w.Room, &path)
	every := (len(path) + drawnSamples - 1) / drawnSamples
	out := []FlightSpot{}
	// A millimetre is kept: it is drawn.
	r := func(v float64) float64 { return math.Round(v*1000) / 1000 }
	for i, p := range path {
		if i%every == 0 || i == len(path)-1 {
			out = append(out, FlightSpot{r(p.T), r(p.X), r(p.Y), r(p.Z), r(p.Speed), r(p.Attack), r(p.Pitch), r(p.Bank), r(p.Heading)})
		}
	}
	return f, out
}
