package puppet

import (
	"errors"
	"math"
	"slices"

	"tussock/internal/body"
	"tussock/internal/draw"
	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
)

// Geometry is a flapper as it is wrapped; mm.
type Geometry struct {
	Sheet    sheet.Sheet
	MassG    float64
	AroundMM float64 // of the flat toy, round the finger
	LongMM   float64 // along it
	GirthMM  float64 // that the tube is rolled to
	Turns    float64
	Layers   float64 // in the mean, at the middle
	Most     int     // layers at the thickest
	CreaseMM float64 // length of the short crease
	GapMM    float64 // that is left in the middle, between both edges
	pose     body.Pose
	middle   geom.Vec3 // of the tube
	along    geom.Vec3 // the tube's axis
	out      geom.Vec3 // away from the finger, at the middle
}

// ErrNoTube means that nothing is wrapped.
var ErrNoTube = errors.New("the pattern names no tube")

// Of reads a flapper off a replay that went to its end.
func Of(r *sequence.Replay) (Geometry, error) {
	name := r.Pattern.Head(headTube)
	if name == "" {
		return Geometry{}, ErrNoTube
	}
	g := Geometry{Sheet: r.Sheet, pose: body.Standing(r)}
	g.MassG = g.pose.Weigh().G
	flat := body.Measure(r.Final())
	g.Most = flat.MaxLayers
	var axis geom.Segment
	for _, q := range r.Lines[name] {
		a, ok1 := sequence.Place(r.Final(), q.A)
		b, ok2 := sequence.Place(r.Final(), q.B)
		if ok1 && ok2 && a.Dist(b) > axis.A.Dist(axis.B) {
			axis = geom.Segment{A: a, B: b}
		}
	}
	dir := axis.B.Sub(axis.A)
	if dir.Len() < 1 {
		return g, ErrNoTube
	}
	dir = dir.Unit()
	lo, hi, left, right := math.Inf(1), math.Inf(-1), 0.0, 0.0
	area := 0.0
	for i := range r.Final().F {
		p := r.Final().Folded(fold.FacetID(i))
		area += p.Area()
		for _, v := range p {
			d := v.Sub(axis.A)
			t, s := d.Dot(dir), dir.Cross(d)
			lo, hi, left, right = math.Min(lo, t), math.Max(hi, t), math.Max(left, s), math.Max(right, -s)
		}
	}
	g.LongMM, g.AroundMM = hi-lo, left+right
	g.Layers = math.Max(1, area/flat.AreaMM2)
	for _, b := range r.Bends {
		if b.Kind == sequence.OpWrap && b.RadiusMM > 0 {
			radius := b.RadiusMM
			g.GirthMM = 2 * math.Pi * radius
		}
	}
	if g.GirthMM == 0 {
		return g, ErrNoTube
	}
	g.Turns = g.AroundMM / g.GirthMM
	for _, n := range r.Notes {
		if n.FoldDeg > 0 {
			for _, l := range r.Steps[n.Step-1].Lines {
				g.CreaseMM = math.Max(g.CreaseMM, l.A.Dist(l.B))
			}
		}
	}
	g.GapMM = gapAt(r.Final(), axis, dir)
	g.place(axis, dir, lo, hi)
	return g, nil
}

// gapAt is the hair between the edges of both halves at the middle of the tube's line: from
// the line to the nearest edge of a layer, on both sides.
func gapAt(s *fold.State, axis geom.Segment, dir geom.Vec) float64 {
	mid := geom.Mid(axis.A, axis.B)
	var sides [2]float64
	sides[0], sides[1] = math.Inf(1), math.Inf(1)
	for i := range s.F {
		p := s.Folded(fold.FacetID(i))
		for k := range p {
			a, b := p[k].Sub(mid), p[(k+1)%len(p)].Sub(mid)
			if math.Abs(a.Dot(dir)-b.Dot(dir)) < 1 || a.Dot(dir) > 0 == (b.Dot(dir) > 0) {
				continue // not past the middle, along the line
			}
			t := a.Dot(dir) / (a.Dot(dir) - b.Dot(dir))
			off := dir.Cross(a.Add(b.Sub(a).Scale(t)))
			if math.Abs(off) < geom.OnPaper {
				continue // the line itself
			}
			side := 0
			if off < 0 {
				side = 1
			}
			sides[side] = math.Min(sides[side], math.Abs(off))
		}
	}
	if math.IsInf(sides[0], 1) || math.IsInf(sides[1], 1) {
		return 0
	}
	return sides[0] + sides[1]
}

// place finds the middle of the tube, its axis and which way is out.
func (g *Geometry) place(axis geom.Segment, dir geom.Vec, lo, hi float64) {
	g.along = geom.Vec3{X: dir.X, Y: dir.Y}
	at := axis.A.Add(dir.Scale((lo + hi) / 2))
	var sum geom.Vec3
	n := 0.0
	for i := range g.pose.State.F {
		for _, c := range g.pose.Corners(fold.FacetID(i)) {
			sum, n = sum.Add(c), n+1
		}
	}
	centre := sum.Scale(1 / n)
	g.middle = geom.Vec3{X: at.X, Y: at.Y}
	// At the tube's line the paper lies in its plane, with the roll on one side.
	g.out = geom.Vec3{Z: math.Copysign(1, -centre.Z)}
}

// half is one piece of paper of a wing, in space.
type half struct {
	points []geom.Vec3
	front  bool
}

// beaten is the flapper with both wings bent out or in by an angle at the middle, radians:
// each half of the tube is turned about the short crease, stiff as it is.
func (g Geometry) beaten(angle float64) []half {
	hinge := g.along.Cross(g.out)
	var out []half
	for i, f := range g.pose.State.F {
		c := g.pose.Corners(fold.FacetID(i))
		up := g.pose.At[i].Turn(geom.Vec3{Z: 1})
		_ = f
		for _, side := range []float64{1, -1} {
			p := clip(c, g.middle, g.along.Scale(side))
			if len(p) < 3 {
				continue
			}
			turn := geom.Swing(g.middle, hinge, side*angle)
			q := make([]geom.Vec3, len(p))
			for k, v := range p {
				q[k] = turn.Apply(v)
			}
			out = append(out, half{q, turn.Turn(up).Dot(geom.Vec3{Z: 1}) > 0})
		}
	}
	return out
}

// clip is the part of a polygon on the side of a plane that its normal points to.
func clip(p []geom.Vec3, at, n geom.Vec3) []geom.Vec3 {
	var out []geom.Vec3
	for i := range p {
		a, b := p[i], p[(i+1)%len(p)]
		da, db := a.Sub(at).Dot(n), b.Sub(at).Dot(n)
		if da >= 0 {
			out = append(out, a)
		}
		if da > 0 != (db > 0) && da != db {
			out = append(out, a.Add(b.Sub(a).Scale(da/(da-db))))
		}
	}
	return out
}

// seen draws pieces of paper as a camera sees them, the farthest first.
func (g Geometry) seen(pieces []half, right, up geom.Vec3) draw.Picture {
	toward := right.Cross(up)
	depth := func(h half) float64 {
		s := 0.0
		for _, v := range h.points {
			s += v.Dot(toward)
		}
		return s / float64(len(h.points))
	}
	slices.SortStableFunc(pieces, func(a, b half) int {
		if da, db := depth(a), depth(b); da < db {
			return -1
		} else if da > db {
			return 1
		}
		return 0
	})
	var pic draw.Picture
	box := [4]float64{math.Inf(1), math.Inf(1), math.Inf(-1), math.Inf(-1)}
	for _, h := range pieces {
		f := draw.Face{Plain: true}
		n := h.points[1].Sub(h.points[0]).Cross(h.points[2].Sub(h.points[0]))
		f.Front = n.Dot(toward) > 0
		for _, v := range h.points {
			d := v.Sub(g.middle)
			x, y := tenth(d.Dot(right)), tenth(-d.Dot(up))
			f.Points = append(f.Points, x, y)
			box = [4]float64{math.Min(box[0], x), math.Min(box[1], y), math.Max(box[2], x), math.Max(box[3], y)}
		}
		pic.Faces = append(pic.Faces, f)
	}
	pic.View = [4]float64{box[0], box[1], box[2] - box[0], box[3] - box[1]}
	return pic
}

func tenth(v float64) float64 { return math.Round(10*v) / 10 }
