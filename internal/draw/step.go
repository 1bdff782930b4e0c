package draw

import (
	"math"

	"tussock/internal/body"
	"tussock/internal/fold"
	"tussock/internal/fold/layermap"
	"tussock/internal/geom"
	"tussock/internal/sequence"
)

// Next is what is drawn over the state before a step to show the step.
func Next(d sequence.Done) (o Overlay) {
	box := d.Before.Box()
	o = nothing(box)
	defer func() { o.frame(box) }()
	switch d.Op {
	case sequence.OpTurn:
		o.turn(box, d.Line)
	case sequence.OpRotate:
		o.rotate(box, d.AngleDeg)
	case sequence.OpUnfold, sequence.OpRefold:
		o.open(d, box)
	case sequence.OpGlue, sequence.OpTape, sequence.OpClip, sequence.OpLabel, sequence.OpAxle, sequence.OpInk, sequence.OpPop:
		o.mark(d, box)
	case sequence.OpCrease, sequence.OpValley, sequence.OpMountain, sequence.OpLeaf, sequence.OpRoll, sequence.OpRound, sequence.OpCut, sequence.OpTear:
		o.fold(d, box)
	default:
		o.several(d, box)
	}
	return o
}

// mark shows where something is put on the paper.
func (o *Overlay) mark(d sequence.Done, box geom.Box) {
	for _, s := range d.Lines {
		o.Strokes = append(o.Strokes, Stroke{"meet", flatPoints(s.A, s.B)})
	}
	if d.At != nil {
		o.Signs = append(o.Signs, signAt(*d.At, longer(box)))
	}
}

// open shows that the paper is laid back to an earlier state.
func (o *Overlay) open(d sequence.Done, box geom.Box) {
	c := box.Centre()
	r := geom.Vec{X: math.Min(box.Width(), box.Height()) * 0.3}
	o.Arrows = append(o.Arrows, arrowOf("open", c.Sub(r), c.Add(r.Left().Scale(0.5)), c.Add(r), longer(box)))
}

// several shows a step that creases several lines, bends, or opens in the round:
// every line with the sense it will have, and an arrow from what moves.
func (o *Overlay) several(d sequence.Done, box geom.Box) {
	made := creased(d)
	o.Strokes = append(o.Strokes, made...)
	if len(made) == 0 {
		kind := "valley"
		if d.After == d.Before {
			kind = "axis" // nothing is creased: a line to bend or open about
		}
		for _, s := range d.Lines {
			o.Strokes = append(o.Strokes, Stroke{kind, flatPoints(s.A, s.B)})
		}
	}
	arrow := "fold"
	switch d.Op {
	case sequence.OpReverse, sequence.OpSink, sequence.OpCrimp:
		arrow = "push"
	case sequence.OpDraw:
		arrow = "pull"
	case sequence.OpCollapse, sequence.OpGather, sequence.OpTwist, sequence.OpRabbit, sequence.OpFlex:
		arrow = "gather"
	}
	for i, m := range d.Meets {
		if m.Name == "" {
			continue
		}
		at := m.At
		if m.Line {
			o.Strokes = append(o.Strokes, Stroke{"meet", flatPoints(m.Along.A, m.Along.B)})
		}
		if i == 1 {
			at = d.Line.Mirror(d.Meets[0].At)
		}
		o.Signs = append(o.Signs, signAt(at, longer(box)))
	}
	from, to, ok := travel(d)
	if ok && from.Dist(to) > 0.02*longer(box) {
		o.Arrows = append(o.Arrows, curve(arrow, from, to, box))
	}
}

// travel is the way of what moves farthest in a step: a corner of the paper.
func travel(d sequence.Done) (from, to geom.Vec, ok bool) {
	if d.At != nil && d.After == d.Before {
		return *d.At, d.Line.Mirror(*d.At), d.Line.N.Len() > 0
	}
	best := 0.0
	for _, f := range d.After.F {
		old := d.Before.F[rootOf(d, f)]
		for _, v := range f.Poly {
			a, b := old.Iso.Apply(v), f.Iso.Apply(v)
			if x := a.Dist(b); x > best+geom.OnPaper {
				best, from, to, ok = x, a, b, true
			}
		}
	}
	return from, to, ok
}

// rootOf is the piece before a step that a piece after it was part of.
func rootOf(d sequence.Done, f fold.Facet) fold.FacetID {
	at := d.Before.FacetsAtSheet(f.Poly.Centroid())
	if len(at) == 0 {
		return 0
	}
	return at[0]
}

// creased are the lines of a step that folds several at once, where they lie
// before it, each with the sense it will have as one looks at the toy.
func creased(d sequence.Done) []Stroke {
	var out []Stroke
	if d.After == d.Before {
		return nil
	}
	for _, h := range d.After.H {
		now := d.After.Assigned(h)
		if now == fold.Flat {
			continue
		}
		at := d.Before.FacetsAtSheet(geom.Mid(h.P, h.Q))
		if len(at) == 0 || wasFolded(d.Before, h) {
			continue
		}
		top := at[0] // the layer nearest to the viewer
		for _, f := range at[1:] {
			if d.Before.Above(f, top) > 0 {
				top = f
			}
		}
		iso := d.Before.F[top].Iso
		if !iso.FaceUp() {
			now = -now
		}
		kind := "valley"
		if now == fold.Mountain {
			kind = "mountain"
		}
		out = append(out, Stroke{kind, flatPoints(iso.Apply(h.P), iso.Apply(h.Q))})
	}
	return out
}

// wasFolded tells whether the paper was folded along a hinge already.
func wasFolded(s *fold.State, h fold.Hinge) bool {
	m := geom.Mid(h.P, h.Q)
	for _, g := range s.H {
		if (geom.Segment{A: g.P, B: g.Q}).Dist(m) < geom.OnPaper && s.Assigned(g) != fold.Flat {
			return true
		}
	}
	return false
}

// frame is the part of the plane that paper, arrows and strokes take up.
func (o *Overlay) frame(b geom.Box) {
	grow := func(pts []float64) {
		for i := 0; i+1 < len(pts); i += 2 {
			b = b.Grow(geom.Vec{X: pts[i], Y: -pts[i+1]})
		}
	}
	for _, s := range o.Strokes {
		grow(s.Points)
	}
	for _, a := range o.Arrows {
		grow(a.Shaft)
		for _, h := range a.Heads {
			grow(h.Points)
		}
	}
	o.View = view(b)
}

func (o *Overlay) fold(d sequence.Done, box geom.Box) {
	kind, arrow := "valley", "fold"
	switch d.Op {
	case sequence.OpMountain:
		kind, arrow = "mountain", "behind"
	case sequence.OpCrease:
		arrow = "unfold"
	case sequence.OpCut, sequence.OpTear:
		kind = "cut"
	}
	parts := layermap.Beyond(d.Before, d.Moving, d.Line, d.Side)
	cells := layermap.Overlay(parts)
	if d.Op != sequence.OpCrease {
		for _, c := range cells {
			o.Moving = append(o.Moving, Region{Points: flatPoints(c.Poly...), Layers: len(c.Stack)})
		}
	}
	// The crease runs where it crosses the layers that take part.
	lo, hi := math.Inf(1), math.Inf(-1)
	dir := d.Line.Dir()
	for _, f := range d.Moving {
		if seg, ok := d.Before.Folded(f).ClipLine(d.Line); ok {
			lo = math.Min(lo, math.Min(dir.Dot(seg.A), dir.Dot(seg.B)))
			hi = math.Max(hi, math.Max(dir.Dot(seg.A), dir.Dot(seg.B)))
		}
	}
	if hi > lo {
		foot := d.Line.N.Scale(d.Line.D)
		// A little beyond the paper, so that the dashes show where it ends.
		over := 0.02 * longer(box)
		o.Strokes = append(o.Strokes, Stroke{kind, flatPoints(foot.Add(dir.Scale(lo-over)), foot.Add(dir.Scale(hi+over)))})
	}
	if kind == "cut" { // what comes off is marked; nothing is folded over
		return
	}
	from, to := o.meeting(d, parts, box)
	o.Arrows = append(o.Arrows, curve(arrow, from, to, box))
}

// meeting marks what is brought to what, and gives the ends of the arrow.
func (o *Overlay) meeting(d sequence.Done, parts []geom.Polygon, box geom.Box) (from, to geom.Vec) {
	if d.Meets[0].Name == "" {
		from = farthest(d, parts)
		return from, d.Line.Mirror(from)
	}
	from = d.Meets[0].At
	to = d.Line.Mirror(from)
	for i, m := range d.Meets {
		at := m.At
		if m.Line {
			o.Strokes = append(o.Strokes, Stroke{"meet", flatPoints(m.Along.A, m.Along.B)})
		}
		if i == 1 {
			at = to // where it lands, not the middle of the line it lands on
		}
		o.Signs = append(o.Signs, signAt(at, longer(box)))
	}
	return from, to
}

// farthest is the middle of the moving layers' far rim.
func farthest(d sequence.Done, parts []geom.Polygon) geom.Vec {
	var sum geom.Vec
	best, n := 0.0, 0.0
	for _, p := range parts {
		for _, v := range p {
			switch dist := math.Abs(d.Line.Side(v)); {
			case dist > best+geom.OnPaper:
				best, sum, n = dist, v, 1
			case dist > best-geom.OnPaper:
				sum, n = sum.Add(v), n+1
			}
		}
	}
	if n == 0 {
		return d.Line.Foot(geom.Vec{})
	}
	return sum.Scale(1 / n)
}

// curve bows an arrow away from the middle of the toy. It leaves a little room
// at both ends for the signs of what meets.
func curve(kind string, from, to geom.Vec, b geom.Box) Arrow {
	mid := geom.Mid(from, to)
	bow := to.Sub(from).Left().Scale(0.28)
	if c := b.Centre(); mid.Add(bow).Dist(c) < mid.Sub(bow).Dist(c) {
		bow = bow.Scale(-1)
	}
	control := mid.Add(bow)
	room := math.Min(0.035*longer(b), 0.25*from.Dist(to))
	toward := func(a geom.Vec) geom.Vec { return a.Add(control.Sub(a).Unit().Scale(room)) }
	return arrowOf(kind, toward(from), control, toward(to), longer(b))
}

func (o *Overlay) turn(b geom.Box, axis geom.Line) {
	c := b.Centre()
	d := geom.Vec{X: math.Min(b.Width(), b.Height()) * 0.3}
	if math.Abs(axis.N.Y) > math.Abs(axis.N.X) {
		d = geom.Vec{Y: d.X}
	}
	o.Arrows = append(o.Arrows, arrowOf("turn", c.Sub(d), c.Add(d.Left().Scale(0.7)), c.Add(d), longer(b)))
	l := geom.LineAt(c, axis.Dir())
	half := axis.Dir().Scale(0.55 * math.Abs(geom.Vec{X: b.Width(), Y: b.Height()}.Dot(absolute(axis.Dir()))))
	foot := l.Foot(c)
	o.Strokes = append(o.Strokes, Stroke{"axis", flatPoints(foot.Sub(half), foot.Add(half))})
}

func absolute(v geom.Vec) geom.Vec { return geom.Vec{X: math.Abs(v.X), Y: math.Abs(v.Y)} }

func (o *Overlay) rotate(b geom.Box, deg float64) {
	c := b.Centre()
	r := geom.Vec{X: math.Min(b.Width(), b.Height()) * 0.35}
	turn := geom.Rad(math.Mod(deg, 360))
	o.Arrows = append(o.Arrows, arrowOf("rotate",
		c.Add(r), c.Add(geom.Rotation(turn/2, geom.Vec{}).Apply(r).Scale(1.2)), c.Add(geom.Rotation(turn, geom.Vec{}).Apply(r)), longer(b)))
}

// Layers is the layer map of a state: one region a cell.
func Layers(cells []body.Cell) []Region {
	out := make([]Region, 0, len(cells))
	largest := map[int]int{} // by count of layers, index of the cell
	box := geom.EmptyBox()
	for _, c := range cells {
		box = box.Grow(c.Poly...)
	}
	size := math.Max(box.Width(), box.Height())
	for i, c := range cells {
		n := len(c.Stack)
		out = append(out, Region{Points: flatPoints(c.Poly...), Layers: n})
		if broad(c.Poly) < 0.02*size {
			continue // no room for a number
		}
		if best, seen := largest[n]; !seen || c.Poly.Area() > cells[best].Poly.Area() {
			largest[n] = i
		}
	}
	for _, i := range largest {
		at := xy(cells[i].Poly.Centroid())
		out[i].Label = &at
	}
	return out
}

// broad is about half the width of a region: area over half the perimeter.
func broad(p geom.Polygon) float64 {
	var rim float64
	for i := range p {
		rim += p[i].Dist(p[(i+1)%len(p)])
	}
	return 2 * p.Area() / rim
}

// Balance puts the centre of mass on a picture of a flat state.
func (p *Picture) Balance(com geom.Vec) {
	at := xy(com)
	p.CoM = &at
}
