package hop

import (
	"errors"
	"math"

	"tussock/internal/body"
	"tussock/internal/fold"
	"tussock/internal/fold/layermap"
	"tussock/internal/geom"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
)

// Geometry is what a fold tells of a hopper. Lengths mm, areas mm².
type Geometry struct {
	Sheet      sheet.Sheet
	MassG      float64
	BodyShare  float64 // of the mass that lies ahead of the hip
	BodyMM     float64 // hip to nose
	CoMMM      float64 // of the body, ahead of the hip
	WholeCoMMM float64 // of the whole toy pressed flat, ahead of the hip
	CoMUpMM    float64 // of the body over its underside: it lies in the middle of its layers
	NoseUpMM   float64 // by which the legs hold the nose up
	GyrationMM float64
	MiddleMM   float64 // hip to catch
	FootMM     float64 // catch to the rear edge
	WidthMM    float64 // of the toy at the hip
	LayersMean float64 // at the hip, over that width
	LayersMost int
	PlanMM2    float64
	Backward   bool // the catch lies behind the hip
	SlantDeg   float64
	// Contact is what touches the table, seen from above: x ahead of the hip, y to the
	// right, mm. Toes come first, then the catch, then the rear edge.
	Contact []Touch
	Outline []geom.Polygon // of the finished toy, in the same frame
	Box     geom.Box       // of that outline
}

// Touch is a point on the table.
type Touch struct {
	Name string  `json:"name"`
	X    float64 `json:"x"` // mm ahead of the hip
	Y    float64 `json:"y"` // mm to the right
}

// ErrNoSpring: the pattern names no pleat, or it is not folded.
var ErrNoSpring = errors.New("it has no pleat to spring from")

// pleat is the state before the last two folds, and both of them in it.
type pleat struct {
	before    *fold.State
	hip, back geom.Line // pointing at the nose's side
}

// Of measures a successful replay. The error is ErrNoSpring, or says what is wrong with
// the pleat.
func Of(r *sequence.Replay) (Geometry, error) {
	g := Geometry{Sheet: r.Sheet}
	p := r.Pattern
	if springStep(p, 0) == 0 || springStep(p, 1) == 0 || r.Err != nil {
		return g, ErrNoSpring
	}
	var q pleat
	for _, d := range r.Steps {
		if d.No == springStep(p, 0) {
			q.before = d.Before
		}
	}
	hip, okH := q.line(r.Lines[spring(p, 0)])
	back, okB := q.line(r.Lines[spring(p, 1)])
	if q.before == nil || !okH || !okB {
		return g, ErrNoSpring
	}
	box := q.before.Box()
	mid := back.Foot(box.Centre())
	if hip.Side(mid) > 0 {
		hip = hip.Flip()
	}
	if back.N.Dot(hip.N) < 0 {
		back = back.Flip()
	}
	q.hip, q.back = hip, back
	g.SlantDeg = geom.Deg(math.Acos(math.Max(-1, math.Min(1, hip.N.Dot(back.N)))))
	return g, g.measure(r, q)
}

// line is a crease in the folded plane: the line through the longest of its pieces.
func (q pleat) line(on []geom.Segment) (geom.Line, bool) {
	best := longest(on)
	if q.before == nil || best.Len() < 1e-6 {
		return geom.Line{}, false
	}
	f := q.before.FacetsAtSheet(best.Mid())
	if len(f) == 0 {
		return geom.Line{}, false
	}
	iso := q.before.F[f[0]].Iso
	return geom.LineThrough(iso.Apply(best.A), iso.Apply(best.B))
}

func longest(of []geom.Segment) (best geom.Segment) {
	for _, s := range of {
		if s.Len() > best.Len() {
			best = s
		}
	}
	return best
}

// part of the toy that a place of the sheet belongs to: 0 body, 1 middle, 2 foot.
func (q pleat) part(at geom.Vec) int {
	f := q.before.FacetsAtSheet(at)
	if len(f) == 0 {
		return 0
	}
	v := q.before.F[f[0]].Iso.Apply(at)
	switch {
	case q.hip.Side(v) >= 0:
		return 0
	case q.back.Side(v) >= 0:
		return 1
	}
	return 2
}

func (g *Geometry) measure(r *sequence.Replay, q pleat) error {
	final := r.Final()
	flat := body.Measure(final)
	g.MassG, g.PlanMM2 = flat.MassG, flat.AreaMM2
	before := layermap.Cells(q.before)
	// Reach ahead of and behind the creases, before the pleat is folded.
	ahead, behind := 0.0, 0.0
	across := q.hip.Dir()
	var lo, hi = math.Inf(1), math.Inf(-1)
	layered, wide := 0.0, 0.0
	for _, c := range before {
		for _, v := range c.Poly {
			ahead, behind = math.Max(ahead, q.hip.Side(v)), math.Max(behind, -q.back.Side(v))
		}
		if s, ok := c.Poly.ClipLine(q.hip); ok {
			long := s.Len()
			layered, wide = layered+long*float64(len(c.Stack)), wide+long
			g.LayersMost = max(g.LayersMost, len(c.Stack))
			for _, v := range []geom.Vec{s.A, s.B} {
				lo, hi = math.Min(lo, across.Dot(v)), math.Max(hi, across.Dot(v))
			}
		}
	}
	if wide < 1 {
		return errors.New("the fold at the hip misses the paper: move it onto the body")
	}
	g.WidthMM, g.LayersMean = wide, layered/wide
	// A cell whose rim lies on the crease is clipped by both neighbours; the width counts
	// it once.
	if wide > (hi-lo)*1.01 {
		g.WidthMM = hi - lo
	}
	axis := (lo + hi) / 2
	centre := q.hip.Foot(geom.Vec{}).Add(across.Scale(axis - across.Dot(q.hip.Foot(geom.Vec{}))))
	g.MiddleMM = math.Abs(q.back.Side(centre)) / math.Max(0.2, math.Abs(q.back.N.Dot(q.hip.N)))
	g.FootMM = behind
	if g.MiddleMM < 0.5 || g.FootMM < 0.5 {
		return errors.New("both folds of the pleat lie at the same place: move them apart")
	}
	return g.weigh(r, q, flat, ahead)
}

// weigh measures the body as it ends up, legs and all, in a frame at the hip: x towards
// the nose, y to the right.
func (g *Geometry) weigh(r *sequence.Replay, q pleat, flat body.Flat, ahead float64) error {
	final := r.Final()
	frame, err := g.frame(r, final)
	if err != nil {
		return err
	}
	var area, bodyArea, sum, square, whole float64
	box := geom.EmptyBox()
	for i, f := range final.F {
		poly := final.Folded(fold.FacetID(i))
		a := poly.Area()
		part := q.part(f.Poly.Centroid())
		local := inFrame(poly, frame)
		box = box.Grow(local...)
		area += a
		whole += a * local.Centroid().X
		if part != 0 {
			continue
		}
		bodyArea += a
		m, s := moments(local)
		sum, square = sum+m, square+s
		for _, v := range local {
			ahead = math.Max(ahead, v.X)
		}
	}
	for _, p := range layermap.Silhouette(flat.Cells) {
		g.Outline = append(g.Outline, inFrame(p, frame))
	}
	g.Box = box
	g.BodyMM, g.BodyShare = ahead, bodyArea/area
	g.WholeCoMMM = whole / area
	g.CoMMM = sum / bodyArea
	g.GyrationMM = math.Sqrt(math.Max(0, square/bodyArea-g.CoMMM*g.CoMMM))
	g.touch(r, final, frame)
	g.raised(r, q, flat, frame)
	return nil
}

// springyLegsMM is how high paper legs that are folded flat hold a nose up by themselves:
// creases do not stay shut.
const springyLegsMM = 2

// raised measures how high the body lies over its underside and its nose over the table:
// half of its layers, and as far as its legs are opened.
func (g *Geometry) raised(r *sequence.Replay, q pleat, flat body.Flat, frame func(geom.Vec) geom.Vec) {
	mass, sum := 0.0, 0.0
	for _, c := range flat.Cells {
		a, n := c.Poly.Area(), float64(len(c.Stack))
		mass, sum = mass+a*n, sum+a*n*n*g.Sheet.ThicknessMM/2
	}
	if mass > 0 {
		g.CoMUpMM = sum / mass
	}
	g.NoseUpMM = springyLegsMM
	if len(r.Openings) == 0 {
		return
	}
	plain := *r
	plain.Bends = nil // the pleat is the model's
	pose := body.Standing(&plain)
	for i, f := range pose.State.F {
		id := fold.FacetID(i)
		if q.part(f.Poly.Centroid()) != 0 || pose.PartOf(id) == 0 {
			continue // no leg
		}
		flatAt := pose.State.Folded(id)
		for k, v := range pose.Corners(id) {
			if ahead := frame(flatAt[k]).X; ahead > g.BodyMM/4 {
				// A toe nearer to the hip lifts the nose by as much more.
				g.NoseUpMM = math.Max(g.NoseUpMM, math.Abs(v.Z)*math.Min(2, g.BodyMM/ahead))
			}
		}
	}
}

func inFrame(p geom.Polygon, frame func(geom.Vec) geom.Vec) geom.Polygon {
	out := make(geom.Polygon, len(p))
	for k, v := range p {
		out[k] = frame(v)
	}
	return out
}

// frame turns the folded plane of the finished toy into the frame at the hip. It also
// tells on which side of the hip the catch lies.
func (g *Geometry) frame(r *sequence.Replay, final *fold.State) (func(geom.Vec) geom.Vec, error) {
	// A spot of the sheet on the hip, near the middle of the toy, and where it lies now.
	hipAt, okH := placed(r.Lines[spring(r.Pattern, 0)], final)
	catchAt, okC := placed(r.Lines[spring(r.Pattern, 1)], final)
	var nose geom.Vec
	okN := false
	if at, named := r.Landmarks[r.Pattern.Head(headNose)]; named {
		if f := final.FacetsAtSheet(at); len(f) > 0 {
			nose, okN = final.F[f[0]].Iso.Apply(at), true
		}
	}
	if !okH || !okC || !okN {
		return nil, errors.New("the pattern must name the nose and both creases of the pleat")
	}
	long := longest(onPlane(r.Lines[spring(r.Pattern, 0)], final))
	l, ok := geom.LineThrough(long.A, long.B)
	if !ok {
		return nil, ErrNoSpring
	}
	if l.Side(nose) < 0 {
		l = l.Flip()
	}
	g.Backward = l.Side(catchAt) < 0
	ax, ay := l.N, l.Dir()
	return func(v geom.Vec) geom.Vec {
		d := v.Sub(hipAt)
		return geom.Vec{X: ax.Dot(d), Y: ay.Dot(d)}
	}, nil
}

// onPlane are pieces of a crease where they lie in a state.
func onPlane(on []geom.Segment, s *fold.State) []geom.Segment {
	var out []geom.Segment
	for _, c := range on {
		if f := s.FacetsAtSheet(c.Mid()); len(f) > 0 {
			iso := s.F[f[0]].Iso
			out = append(out, geom.Segment{A: iso.Apply(c.A), B: iso.Apply(c.B)})
		}
	}
	return out
}

// placed is the middle of the extent of a crease in the finished toy.
func placed(on []geom.Segment, final *fold.State) (geom.Vec, bool) {
	box := geom.EmptyBox()
	for _, s := range onPlane(on, final) {
		box = box.Grow(s.A, s.B)
	}
	if box.MinX > box.MaxX {
		return geom.Vec{}, false
	}
	return box.Centre(), true
}

// moments are the first and second moment of a polygon along x.
func moments(p geom.Polygon) (first, second float64) {
	n := len(p)
	for i := range p {
		a, b := p[i], p[(i+1)%n]
		c := a.Cross(b)
		first += c * (a.X + b.X) / 6
		second += c * (a.X*a.X + a.X*b.X + b.X*b.X) / 12
	}
	if p.Area() < 0 { // the frame at the hip, x ahead and y to the right, mirrors the plane
		return -first, -second
	}
	return first, second
}

// touch finds what stands on the table: the toes or the nose's edge, the catch, and the
// rear edge of the foot.
func (g *Geometry) touch(r *sequence.Replay, final *fold.State, frame func(geom.Vec) geom.Vec) {
	add := func(name string, v geom.Vec) {
		at := frame(v)
		g.Contact = append(g.Contact, Touch{name, at.X, at.Y})
	}
	for _, t := range r.Pattern.Heads(headToes) {
		if at, ok := r.Landmarks[t]; ok {
			if f := final.FacetsAtSheet(at); len(f) > 0 {
				add("toe", final.F[f[0]].Iso.Apply(at))
			}
		}
	}
	if len(g.Contact) == 0 {
		for _, p := range g.Outline {
			for _, v := range p {
				if v.X > g.BodyMM-1 {
					g.Contact = append(g.Contact, Touch{"nose", v.X, v.Y})
				}
			}
		}
	}
	var ends [2]Touch
	for i, s := range onPlane(r.Lines[spring(r.Pattern, 1)], final) {
		for _, v := range []geom.Vec{s.A, s.B} {
			at := frame(v)
			if i == 0 && v == s.A || at.Y < ends[0].Y {
				ends[0] = Touch{"catch", at.X, at.Y}
			}
			if i == 0 && v == s.A || at.Y > ends[1].Y {
				ends[1] = Touch{"catch", at.X, at.Y}
			}
		}
	}
	back := -g.FootMM
	if g.Backward {
		back = g.FootMM
	}
	g.Contact = append(g.Contact, ends[0], ends[1],
		Touch{"rear edge", ends[0].X + back, ends[0].Y}, Touch{"rear edge", ends[1].X + back, ends[1].Y})
}
