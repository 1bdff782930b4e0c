package draw

import (
	"math"

	"tussock/internal/geom"
	"tussock/internal/sequence"
)

// zooms are by how much pictures of one pattern are drawn larger than its largest.
var zooms = []float64{1, 1.25, 1.5, 2, 2.5, 3, 4, 5, 6, 8, 10, 12}

// keepZoom is what part of the frame a picture must fill for the zoom of the one before to
// stay: changes of scale are few.
const keepZoom = 0.6

// Frame is the part of the plane that a picture is drawn in, so that all pictures of a
// pattern have one scale, and by how much it is zoomed where they have not.
type Frame struct {
	View [4]float64 `json:"view"` // left, top, width and height, mm
	Zoom float64    `json:"zoom"` // how many times larger than the largest picture of the pattern
}

// Frames are those of stages in a row. One in the round is seen aslant, so it has no scale
// and fills its frame.
func Frames(stages []Stage) []Frame {
	var w, h float64
	for _, s := range stages {
		if v := s.Over.View; !s.Round {
			w, h = math.Max(w, v[2]), math.Max(h, v[3])
		}
	}
	out := make([]Frame, len(stages))
	last := 1.0
	for i, s := range stages {
		v := s.Over.View
		if s.Round {
			out[i] = Frame{v, 1}
			continue
		}
		fits := func(z float64) bool { return v[2]*z <= w+geom.OnPaper && v[3]*z <= h+geom.OnPaper }
		zoom := 1.0
		for _, z := range zooms {
			if fits(z) {
				zoom = z
			}
		}
		if filled := math.Max(v[2]*last/w, v[3]*last/h); fits(last) && filled > keepZoom {
			zoom = last
		}
		last = zoom
		fw, fh := w/zoom, h/zoom
		out[i] = Frame{[4]float64{round(v[0] + v[2]/2 - fw/2), round(v[1] + v[3]/2 - fh/2), round(fw), round(fh)}, zoom}
	}
	return out
}

// Like is a frame of the same scale round another picture; its own where it does not fit.
func (f Frame) Like(p Picture) [4]float64 {
	v := p.View
	if v[2] > f.View[2]+geom.OnPaper || v[3] > f.View[3]+geom.OnPaper {
		return v
	}
	return [4]float64{round(v[0] + v[2]/2 - f.View[2]/2), round(v[1] + v[3]/2 - f.View[3]/2), f.View[2], f.View[3]}
}

// OtherSide is the toy before a step as it looks from behind, turned from side to side.
func OtherSide(r *sequence.Replay, step int) (Picture, error) {
	s := r.Start
	if step > 1 {
		s = r.Steps[step-2].After
	}
	over, err := s.Apply(s.Whole(geom.Reflection(geom.Line{N: geom.Vec{X: 1}, D: s.Box().Centre().X})))
	if err != nil {
		return Picture{}, err
	}
	p := Flat(over)
	p.Write(over, r.UpTo(step-1).Notes)
	return p, nil
}
