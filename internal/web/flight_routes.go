package web

import (
	"context"
	"fmt"
	"math"
	"net/http"
	"sort"
	"sync"

	"github.com/danielgtaylor/huma/v2"

	"tussock/internal/bench"
	"tussock/internal/geom"
	"tussock/internal/motion"
	"tussock/internal/motion/glide"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
)

func (s *server) flightRoutes(api huma.API) {
	op := func(id, path, summary string) huma.Operation {
		return huma.Operation{OperationID: id, Method: http.MethodPost, Path: "/api/v1" + path, Summary: summary, MaxBodyBytes: 2 * smallBody}
	}
	huma.Register(api, op("fly", "/patterns/{id}/flight", "Throw a set-up: its numbers and its flight, predicted"), s.flight)
	huma.Register(api, op("measured-bends", "/patterns/{id}/measured-bends", "Knobs from what was measured of the finished toy"), s.measuredBends)
	huma.Register(api, huma.Operation{OperationID: "not-known", Method: http.MethodGet, Path: "/api/v1/not-known/{moves}", Summary: "What the model of a way of moving takes and does not know"},
		func(_ context.Context, in *struct {
			Moves string `path:"moves" enum:"fly"`
		}) (*answer[NotKnownView], error) {
			return ok(NotKnownView{glide.Constants(), glide.Limits()})
		})
}

// NotKnownView is what a model rests on.
type NotKnownView struct {
	Constants []motion.Constant `json:"constants"`
	Limits    []string          `json:"limits"`
}

type flightInput struct {
	ID   string `path:"id" maxLength:"80"`
	Body FlightInput
}

// cachedShapes bounds the patterns on sheets whose shapes are kept.
const cachedShapes = 24

// workbench gives the place to throw a set-up at. Shapes are shared by all that throw
// the same pattern on the same sheet.
func (s *server) workbench(p *sequence.Pattern, sh sheet.Sheet, t ThrowInput, r RoomInput, hand string, softening bool) *glide.Workbench {
	key := fmt.Sprintf("%s %g %g %g %g", p.ID, sh.WidthMM, sh.HeightMM, sh.GSM, sh.ThicknessMM)
	shapes, found := s.shapes.Get(key)
	if !found {
		shapes = &glide.Shapes{Pattern: p, Sheet: sh}
		s.shapes.Add(key, shapes)
	}
	return &glide.Workbench{Shapes: shapes, Scatter: glide.ScatterOf(hand), Softening: softening,
		Throw: glide.Throw{SpeedMS: t.SpeedMS, AngleDeg: t.AngleDeg, HeightM: t.HeightM, BankDeg: t.BankDeg},
		Room:  glide.Room{LengthM: r.LengthM, WidthM: r.WidthM, CeilingM: r.CeilingM, RopeAtM: r.RopeAtM, RopeM: r.RopeM}}
}

// bench is the workbench of a request with its knobs.
func (s *server) benchOf(id string, in FlightInput) (*glide.Workbench, map[string]float64, error) {
	p, setup, sh, err := in.planned(id)
	if err != nil {
		return nil, nil, err
	}
	if in.Room.CeilingM > 0 && in.Throw.HeightM >= in.Room.CeilingM {
		return nil, nil, refuse("body.throw.height_m", in.Throw.HeightM, fmt.Sprintf("the hand is at %s m and the ceiling at %s m; throw from below the ceiling", sheet.Number(in.Throw.HeightM), sheet.Number(in.Room.CeilingM)))
	}
	return s.workbench(p, sh, in.Throw, in.Room, in.Hand, in.Softening), fullKnobs(p, setup.Knobs), nil
}

func (s *server) flight(_ context.Context, in *flightInput) (*answer[*FlightView], error) {
	w, knobs, err := s.benchOf(in.ID, in.Body)
	if err != nil {
		return nil, err
	}
	m, err := w.Model(knobs)
	if err != nil {
		return nil, refuse("body.knobs", nil, err.Error())
	}
	toy, _ := w.Toy(knobs)
	v := &FlightView{Glider: toy.Glider, Readings: []motion.Reading{}, Ghosts: []GhostView{}, Modes: []ModeShare{}, Band: []BandView{}, Throws: glide.BandThrows}
	// Numbers and throws rest on the same model, which nothing changes.
	var numbers sync.WaitGroup
	if toy.Glider {
		numbers.Go(func() { v.Readings = m.Readings() })
	}
	defer numbers.Wait()
	f, path := thrown(m, w)
	v.Path = path
	v.Mode, v.ModeWords, v.End = string(f.Mode), f.Mode.Words(), string(f.End)
	v.Nominal = NominalView{f.DistanceM, f.TimeS, f.HighestM, f.DriftM, f.HeadingDeg}
	if !math.IsNaN(f.RopeOverM) {
		v.RopeOverM = &f.RopeOverM
	}
	sp := w.Outlook(m)
	for _, b := range sp.Band {
		v.Band = append(v.Band, BandView(b))
	}
	v.Distance = motion.Outlook{LoM: sp.Distance.Lo, MiddleM: sp.Distance.Middle, HiM: sp.Distance.Hi, Mode: v.Mode}
	v.Time, v.Height, v.Drift = sp.Time, sp.Highest, sp.Drift
	for mode, n := range sp.Modes {
		v.Modes = append(v.Modes, ModeShare{string(mode), float64(n) / glide.BandThrows})
	}
	sort.Slice(v.Modes, func(i, j int) bool {
		a, b := v.Modes[i], v.Modes[j]
		return a.Share > b.Share || a.Share == b.Share && a.Mode < b.Mode
	})
	for _, g := range in.Body.Ghosts {
		if err := checkKnobs(w.Pattern, g.Knobs); err != nil {
			return nil, err
		}
		n, err := w.Model(fullKnobs(w.Pattern, g.Knobs))
		if err != nil {
			continue // it cannot be folded on this sheet: no ghost
		}
		gf, gp := thrown(n, w)
		v.Ghosts = append(v.Ghosts, GhostView{g.Name, gf.DistanceM, string(gf.Mode), gp})
	}
	numbers.Wait()
	return ok(v)
}

// drawnSamples is how many moments of a flight the page is sent at most.
const drawnSamples = 160

func thrown(m *glide.Model, w *glide.Workbench) (glide.Flight, []SampleView) {
	path := make([]glide.Sample, 0, 3200)
	f := m.Fly(w.Throw, w.Room, &path)
	every := (len(path) + drawnSamples - 1) / drawnSamples
	out := []SampleView{}
	for i, p := range path {
		if i%every == 0 || i == len(path)-1 {
			out = append(out, SampleView{round(p.T), round(p.X), round(p.Y), round(p.Z), round(p.Speed), round(p.Attack), round(p.Pitch), round(p.Bank), round(p.Heading)})
		}
	}
	return f, out
}

// round keeps a millimetre: what is sent is drawn.
func round(v float64) float64 { return math.Round(v*1000) / 1000 }

type measuredBendsInput struct {
	ID   string `path:"id" maxLength:"80"`
	Body MeasuredInput
}

// measuredBends replaces the nominal bends by what was measured, side by side.
func (s *server) measuredBends(_ context.Context, in *measuredBendsInput) (*answer[map[string]float64], error) {
	p, setup, _, err := in.Body.planned(in.ID)
	if err != nil {
		return nil, err
	}
	knobs := fullKnobs(p, setup.Knobs)
	b := in.Body
	if err := (pairInput{"left_v", "right_v", b.LeftV, b.RightV}).put(p, knobs, "wing", "wing_uneven", func(v float64) (float64, error) { return v, nil }, func(mean float64) float64 { return 90 - mean }); err != nil {
		return nil, err
	}
	depth := knobs["curl_depth"]
	angle := func(mm float64) (float64, error) {
		if math.Abs(mm) >= depth {
			return 0, fmt.Errorf("an edge %s mm deep cannot stand %s mm high", sheet.Number(depth), sheet.Number(mm))
		}
		return geom.Deg(math.Asin(mm / depth)), nil
	}
	if err := (pairInput{"left_lip", "right_lip", b.LeftLip, b.RightLip}).put(p, knobs, "curl", "curl_uneven", angle, func(mean float64) float64 { return mean }); err != nil {
		return nil, err
	}
	if err := checkKnobs(p, knobs); err != nil {
		return nil, err
	}
	return ok(knobs)
}

type pairInput struct {
	leftName, rightName string
	left, right         *float64
}

// put sets a knob to the mean of both sides and another to what the right has more.
func (q pairInput) put(p *sequence.Pattern, knobs map[string]float64, mean, apart string, angle func(float64) (float64, error), knob func(float64) float64) error {
	if q.left == nil && q.right == nil {
		return nil
	}
	for _, n := range []string{mean, apart} {
		if p.KnobIndex(n) < 0 {
			return refuse("body."+q.leftName, nil, p.Title+" has no wings that are set so")
		}
	}
	side := func(name string, v *float64) (float64, error) {
		if v == nil {
			return 0, refuse("body."+name, nil, "measure both sides: "+name+" is empty")
		}
		a, err := angle(*v)
		if err != nil {
			return 0, refuse("body."+name, *v, err.Error())
		}
		return a, nil
	}
	l, err := side(q.leftName, q.left)
	if err != nil {
		return err
	}
	r, err := side(q.rightName, q.right)
	if err != nil {
		return err
	}
	knobs[mean], knobs[apart] = knob((l+r)/2), r-l
	return nil
}

// noted are trials as the clinic reads them.
func noted(trials []bench.Trial) []motion.Seen {
	out := make([]motion.Seen, len(trials))
	for i, t := range trials {
		out[i] = motion.Seen{Chips: t.Seen, DistanceM: t.DistanceM, TimeS: t.TimeS, OffsetM: t.OffsetM}
	}
	return out
}
