package draw

import (
	"math"
	"slices"

	"tussock/internal/fold"
	"tussock/internal/fold/layermap"
	"tussock/internal/geom"
	"tussock/internal/sequence"
)

// Next is what is drawn over the state before a step to show the step.
func Next(d sequence.Done) Overlay {
	k := sketchOf(d)
	switch d.Op {
	case sequence.OpTurn:
		k.turn()
	case sequence.OpRotate:
		k.rotate()
	case sequence.OpUnfold, sequence.OpRefold:
		k.motions("open")
	case sequence.OpGlue, sequence.OpTape, sequence.OpClip, sequence.OpLabel, sequence.OpAxle, sequence.OpInk, sequence.OpPop:
		k.mark()
	case sequence.OpCrease, sequence.OpValley, sequence.OpMountain, sequence.OpLeaf, sequence.OpRoll, sequence.OpRound, sequence.OpCut, sequence.OpTear:
		k.fold()
	case sequence.OpPinch, sequence.OpTransfer:
		k.touch()
	case sequence.OpRays:
		k.several()
		k.rays()
	default:
		k.several()
	}
	k.basis()
	k.o.frame(k.box)
	return k.o
}

// sketch is an overlay under way: everything on it is drawn where the pieces are that it
// lies on.
type sketch struct {
	d    sequence.Done
	o    Overlay
	box  geom.Box
	size float64 // the toy's longer side
	lay  fan
}

func sketchOf(d sequence.Done) *sketch {
	box := d.Before.Box()
	return &sketch{d: d, o: nothing(box), box: box, size: longer(box), lay: fanned(d.Before)}
}

// at is where a spot is drawn: on the uppermost piece there, where it lies beside the paper.
func (k *sketch) at(p geom.Vec) geom.Vec { return k.lay.put(k.top(p), p) }

// top is the uppermost piece at a spot; none beside the paper.
func (k *sketch) top(p geom.Vec) fold.FacetID {
	if f, ok := k.d.Before.TopAt(p); ok {
		return f
	}
	return -1
}

// stroke is a line over the paper, drawn where the piece in its middle is.
func (k *sketch) stroke(kind string, s geom.Segment) {
	f := k.top(s.Mid())
	k.o.Strokes = append(k.o.Strokes, Stroke{kind, flatPoints(k.lay.put(f, s.A), k.lay.put(f, s.B))})
}

func (k *sketch) sign(kind string, at geom.Vec) {
	k.o.Signs = append(k.o.Signs, signAt(kind, k.at(at), k.size))
}

func (k *sketch) arrow(kind string, from, to geom.Vec) {
	k.o.Arrows = append(k.o.Arrows, curve(kind, from, to, k.box))
}

// mark shows where something is put on the paper.
func (k *sketch) mark() {
	for _, s := range k.d.Lines {
		k.stroke("meet", s)
	}
	switch {
	case k.d.At == nil:
	case k.d.Op == sequence.OpGlue:
		k.sign("press", *k.d.At)
	default:
		k.sign("meet", *k.d.At)
	}
	k.motions("pull")
}

// touch shows paper that is brought over, marked, and laid back.
func (k *sketch) touch() {
	for _, s := range k.d.Lines {
		k.stroke("valley", s)
	}
	from, to := k.meeting(nil, nil)
	k.arrow("unfold", from, to)
	if k.d.Op == sequence.OpPinch && len(k.d.Lines) > 0 {
		k.sign("press", k.d.Lines[0].Mid())
	}
}

// pushes are the steps in which paper goes in between other layers.
var pushes = []sequence.Op{sequence.OpReverse, sequence.OpSink, sequence.OpCrimp}

// several shows a step that creases several lines, bends, or opens in the round: every line
// with the sense it will have, and an arrow for everything that moves.
func (k *sketch) several() {
	d := k.d
	made := k.creased()
	k.o.Strokes = append(k.o.Strokes, made...)
	if len(made) == 0 {
		kind := "valley"
		if d.After == d.Before {
			kind = "axis" // nothing is creased: a line to bend or open about
		}
		for _, s := range d.Lines {
			k.stroke(kind, s)
		}
	}
	k.shade()
	k.meets()
	if d.Held != nil {
		k.sign("hold", *d.Held)
	}
	if d.After == d.Before {
		if d.At != nil && d.Line.N.Len() > 0 {
			k.arrow("fold", k.at(*d.At), k.at(d.Line.Mirror(*d.At)))
		}
		return
	}
	kind := "fold"
	switch {
	case slices.Contains(pushes, d.Op):
		kind = "push"
	case d.Op == sequence.OpDraw || d.Op == sequence.OpPop:
		kind = "pull"
	case d.Op == sequence.OpSquash:
		kind = "squash"
	}
	k.motions(kind)
}

// shade marks the pieces that a step moves, where they lie before it.
func (k *sketch) shade() {
	d := k.d
	var polys []geom.Polygon
	var of []fold.FacetID
	for _, f := range d.After.F {
		root := rootOf(d.Before, f)
		if old := d.Before.F[root]; !old.Iso.Near(f.Iso, geom.Still) {
			polys, of = append(polys, f.Poly.Moved(old.Iso)), append(of, root)
		}
	}
	k.regions(polys, of)
}

// regions shades parts of pieces, each drawn where the uppermost of them is.
func (k *sketch) regions(polys []geom.Polygon, of []fold.FacetID) {
	for _, c := range layermap.Overlay(polys) {
		top := of[c.Stack[0]]
		for _, i := range c.Stack[1:] {
			if k.d.Before.Above(of[i], top) > 0 {
				top = of[i]
			}
		}
		k.o.Moving = append(k.o.Moving, Region{Points: flatPoints(k.lay.poly(top, c.Poly)...), Layers: len(c.Stack)})
	}
}

// rootOf is the piece before a step that a piece after it was part of.
func rootOf(before *fold.State, f fold.Facet) fold.FacetID {
	at := before.FacetsAtSheet(f.Poly.Centroid())
	if len(at) == 0 {
		return 0
	}
	return at[0]
}

// creased are the lines of a step that folds several at once, where they lie
// before it, each with the sense it will have as one looks at the toy.
func (k *sketch) creased() []Stroke {
	var out []Stroke
	d := k.d
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
		out = append(out, Stroke{kind, flatPoints(k.lay.put(top, iso.Apply(h.P)), k.lay.put(top, iso.Apply(h.Q)))})
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
	for _, s := range o.Sizes {
		grow(s.Lines)
		grow(s.around())
	}
	o.View = view(b)
}

// rays shows the first of the folds through the middle: the second corner goes over to the
// last one, and back.
func (k *sketch) rays() {
	n := len(k.d.Lines)
	if n < 6 {
		return
	}
	middle := k.box.Centre()
	rim := func(s geom.Segment) geom.Vec {
		if s.A.Dist(middle) > s.B.Dist(middle) {
			return s.A
		}
		return s.B
	}
	k.arrow("unfold", rim(k.d.Lines[2]), rim(k.d.Lines[n-2]))
}

func (k *sketch) fold() {
	d := k.d
	kind, arrow := "valley", "fold"
	switch d.Op {
	case sequence.OpMountain:
		kind, arrow = "mountain", "behind"
	case sequence.OpCrease:
		arrow = "unfold"
	case sequence.OpCut, sequence.OpTear:
		kind = "cut"
	}
	parts, of := layermap.Beyond(d.Before, d.Moving, d.Line, d.Side)
	if d.Op != sequence.OpCrease {
		k.regions(parts, of)
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
		over := 0.02 * k.size
		k.stroke(kind, geom.Segment{A: foot.Add(dir.Scale(lo - over)), B: foot.Add(dir.Scale(hi + over))})
	}
	if kind == "cut" { // what comes off is marked; nothing is folded over
		return
	}
	from, to := k.meeting(parts, of)
	if arrow == "fold" && d.Like > 0 {
		arrow = "repeat"
	}
	k.arrow(arrow, from, to)
}

// meets marks what is brought to what.
func (k *sketch) meets() {
	for i, m := range k.d.Meets {
		if m.Name == "" {
			continue
		}
		at := m.At
		if m.Line {
			k.stroke("meet", m.Along)
		}
		if i == 1 {
			at = k.d.Line.Mirror(k.d.Meets[0].At) // where it lands, not the middle of the line it lands on
		}
		k.sign("meet", at)
	}
}

// meeting marks what is brought to what, and gives the ends of the arrow: a spot of the
// paper that moves, and where it goes.
func (k *sketch) meeting(parts []geom.Polygon, of []fold.FacetID) (from, to geom.Vec) {
	d := k.d
	if d.Meets[0].Name == "" {
		from, f := farthest(d, parts, of)
		return k.lay.put(f, from), k.at(d.Line.Mirror(from))
	}
	k.meets()
	from = d.Meets[0].At
	return k.at(from), k.at(d.Line.Mirror(from))
}

// farthest is the middle of the moving layers' far rim, and a piece that it lies on.
func farthest(d sequence.Done, parts []geom.Polygon, of []fold.FacetID) (geom.Vec, fold.FacetID) {
	var sum geom.Vec
	best, n := 0.0, 0.0
	on := fold.FacetID(-1)
	for i, p := range parts {
		for _, v := range p {
			switch dist := math.Abs(d.Line.Side(v)); {
			case dist > best+geom.OnPaper:
				best, sum, n, on = dist, v, 1, of[i]
			case dist > best-geom.OnPaper:
				sum, n = sum.Add(v), n+1
			}
		}
	}
	if n == 0 {
		return d.Line.Foot(geom.Vec{}), on
	}
	return sum.Scale(1 / n), on
}

func (k *sketch) turn() {
	b, axis := k.box, k.d.Line
	c := b.Centre()
	d := geom.Vec{X: math.Min(b.Width(), b.Height()) * 0.3}
	if math.Abs(axis.N.Y) > math.Abs(axis.N.X) {
		d = geom.Vec{Y: d.X}
	}
	k.o.Arrows = append(k.o.Arrows, arrowOf("turn", c.Sub(d), c.Add(d.Left().Scale(0.7)), c.Add(d), k.size))
	l := geom.LineAt(c, axis.Dir())
	half := axis.Dir().Scale(0.55 * math.Abs(geom.Vec{X: b.Width(), Y: b.Height()}.Dot(absolute(axis.Dir()))))
	foot := l.Foot(c)
	k.o.Strokes = append(k.o.Strokes, Stroke{"axis", flatPoints(foot.Sub(half), foot.Add(half))})
}

func absolute(v geom.Vec) geom.Vec { return geom.Vec{X: math.Abs(v.X), Y: math.Abs(v.Y)} }

func (k *sketch) rotate() {
	b, c := k.box, k.box.Centre()
	r := geom.Vec{X: math.Min(b.Width(), b.Height()) * 0.35}
	turn := geom.Rad(math.Mod(k.d.AngleDeg, 360))
	k.o.Arrows = append(k.o.Arrows, arrowOf("rotate",
		c.Add(r), c.Add(geom.Rotation(turn/2, geom.Vec{}).Apply(r).Scale(1.2)), c.Add(geom.Rotation(turn, geom.Vec{}).Apply(r)), k.size))
}
