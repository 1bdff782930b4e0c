// Package shadow folds a toy once more with small errors.
//
// In words: the pieces, hinges, senses and layer order are those of the exact toy; only
// where things lie differs. Each piece has a motion of its own, and each hinge a line of
// its own on the sheet. A line that the hand creases is off by what Errors say, and layers
// inside a fold push it outwards. What the errors are, and what they do to a toy in the
// end, is the business of others.
package shadow

import (
	"math"

	"tussock/internal/fold"
	"tussock/internal/geom"
)

// Toy is a toy folded with errors, as far as it went.
type Toy struct {
	Iso    []geom.Iso2    // by piece of the present state
	Hinge  []geom.Segment // by hinge of the present state, on the sheet
	Errors Errors
	Lines  int       // creased lines so far, the index of the next error
	Gaps   []float64 // that creep has asked for, mm, since somebody emptied the list
	Worst  float64   // mismatch at a hinge: what the paper must give, mm
	Rims   []Rim     // edges that were cut
}

// New is the sheet before the first fold.
func New(start *fold.State, e Errors) *Toy {
	return &Toy{Errors: e, Iso: isos(start), Hinge: hinges(start)}
}

// CreepMM is how much longer the way round a fold is with n layers inside it than
// without, in mm: half a turn at a radius larger by n·t/2 each side of the middle
// surface gives (π/2)·n·t. Paper folded exactly to a mark stops short or binds by
// that much.
func CreepMM(layers int, thicknessMM float64) float64 {
	return math.Pi / 2 * float64(layers) * thicknessMM
}

// Errors are what is put into a shadow replay.
type Errors interface {
	// Slip is how far off crease line number n is made, in mm square to it, at
	// two spots half a short side of the sheet either way from About.
	Slip(n int) (a, b float64)
	// Creep is how far off a newly folded hinge is made by the thickness of the
	// layers inside it: the line moves that many mm into the piece that moves.
	Creep(s *fold.State, h fold.Hinge) float64
}

func isos(s *fold.State) []geom.Iso2 {
	out := make([]geom.Iso2, len(s.F))
	for i, f := range s.F {
		out[i] = f.Iso
	}
	return out
}

func hinges(s *fold.State) []geom.Segment {
	out := make([]geom.Segment, len(s.H))
	for i, h := range s.H {
		out[i] = geom.Segment{A: h.P, B: h.Q}
	}
	return out
}

// Follow carries out one motion of the exact toy along displaced lines.
func (sh *Toy) Follow(m fold.Move, lines []geom.Line) {
	moved := make([]geom.Line, len(lines))
	for i, l := range lines {
		moved[i] = l
		if !m.Loose {
			moved[i] = sh.slipped(m, l)
		}
	}
	before := sh.Iso
	hinge := make([]geom.Segment, len(m.After.H))
	for i, h := range m.After.H {
		seg := geom.Segment{A: h.P, B: h.Q}
		switch {
		case h.Kind == fold.Glue:
		case h.Parent >= 0:
			seg = projected(seg, sh.Hinge[h.Parent])
		case int(h.Line) < len(moved):
			l := moved[h.Line]
			if !m.OnSheet {
				l = l.Moved(before[m.After.F[h.A].Parent].Inverse())
			}
			seg = geom.Segment{A: l.Foot(h.P), B: l.Foot(h.Q)}
		}
		hinge[i] = seg
	}
	sh.creep(m, hinge)
	sh.Hinge = hinge
	sh.cut(m, moved, before)
	sh.place(m, before)
}

// Rim is an edge of paper that was cut: the side of a piece where it ought to be, and the
// line where it is, both on the sheet.
type Rim struct {
	Facet fold.FacetID
	On    geom.Segment
	Now   geom.Line
}

// cut carries the cut edges over to the pieces after a motion, and adds those that it makes:
// sides of pieces on its line where nothing hangs on any more.
func (sh *Toy) cut(m fold.Move, lines []geom.Line, before []geom.Iso2) {
	old := sh.Rims
	sh.Rims = nil
	cutting := len(m.After.Removed) > len(m.Before.Removed)
	for i, f := range m.After.F {
		for k, a := range f.Poly {
			s := geom.Segment{A: a, B: f.Poly[(k+1)%len(f.Poly)]}
			l, ok := geom.LineThrough(s.A, s.B)
			if !ok {
				continue
			}
			now, made := geom.Line{}, false
			for _, r := range old {
				if r.Facet == f.Parent && math.Abs(l.Side(r.On.A)) < geom.OnPaper && math.Abs(l.Side(r.On.B)) < geom.OnPaper {
					now, made = r.Now, true
				}
			}
			for n := range lines {
				if !cutting || made {
					break
				}
				exact, slipped := m.Lines[n], lines[n]
				if !m.OnSheet {
					exact, slipped = exact.Moved(m.Before.F[f.Parent].Iso.Inverse()), slipped.Moved(before[f.Parent].Inverse())
				}
				if math.Abs(exact.Side(s.A)) < geom.OnPaper && math.Abs(exact.Side(s.B)) < geom.OnPaper {
					now, made = slipped, true
				}
			}
			if made && !hinged(m.After, fold.FacetID(i), s) {
				sh.Rims = append(sh.Rims, Rim{fold.FacetID(i), s, now})
			}
		}
	}
}

// hinged tells whether a piece hangs together with another along a side.
func hinged(s *fold.State, f fold.FacetID, side geom.Segment) bool {
	for _, h := range s.H {
		if _, ok := h.Other(f); ok && h.Kind != fold.Glue && h.Along(side) {
			return true
		}
	}
	return false
}

// End is where an end of a cut edge is on the sheet: where it meets the next cut edge, or
// square across from where it ought to be.
func (sh *Toy) End(r Rim, v geom.Vec) geom.Vec {
	for _, q := range sh.Rims {
		if q.Facet == r.Facet && q.On != r.On && (q.On.A.Dist(v) < geom.OnPaper || q.On.B.Dist(v) < geom.OnPaper) {
			if x, ok := geom.Meet(r.Now, q.Now); ok {
				return x
			}
		}
	}
	return r.Now.Foot(v)
}

// Edge is the line on which a side of a piece is, on the sheet; ok is false for one that was
// never cut.
func (sh *Toy) Edge(f fold.FacetID, side geom.Segment) (geom.Line, bool) {
	for _, r := range sh.Rims {
		if r.Facet == f && r.On.A.Dist(side.A) < geom.OnPaper && r.On.B.Dist(side.B) < geom.OnPaper {
			return r.Now, true
		}
	}
	return geom.Line{}, false
}

// Hand is an error that the hand makes at a spot: two numbers, mm, square to each other.
func (sh *Toy) Hand() geom.Vec {
	a, b := sh.Errors.Slip(sh.Lines)
	sh.Lines++
	return geom.Vec{X: a, Y: b}
}

// slipped puts the error of the next line on it.
func (sh *Toy) slipped(m fold.Move, l geom.Line) geom.Line {
	a, b := sh.Errors.Slip(sh.Lines)
	sh.Lines++
	if a == 0 && b == 0 {
		return l
	}
	half := math.Min(m.Before.Sheet.WidthMM, m.Before.Sheet.HeightMM) / 2
	mid := geom.Vec{X: m.Before.Sheet.WidthMM / 2, Y: m.Before.Sheet.HeightMM / 2}
	d := l.Dir()
	p, q := l.Foot(mid).Sub(d.Scale(half)).Add(l.N.Scale(a)), l.Foot(mid).Add(d.Scale(half)).Add(l.N.Scale(b))
	out, _ := geom.LineThrough(p, q)
	return out
}

// projected is a stretch laid on the line of another.
func projected(s, on geom.Segment) geom.Segment {
	l := geom.LineAt(on.A, on.B.Sub(on.A))
	return geom.Segment{A: l.Foot(s.A), B: l.Foot(s.B)}
}

// creep moves the lines of hinges that are folded in this motion.
func (sh *Toy) creep(m fold.Move, hinge []geom.Segment) {
	for i, h := range m.After.H {
		if h.Kind == fold.Glue || m.After.Assigned(h) == fold.Flat {
			continue
		}
		if h.Parent >= 0 && m.Before.Assigned(m.Before.H[h.Parent]) != fold.Flat {
			continue
		}
		off := sh.Errors.Creep(m.After, h)
		if off == 0 {
			continue
		}
		sh.Gaps = append(sh.Gaps, 2*off)
		// Into the piece that moved: B when A kept its place.
		into := h.B
		if !m.After.F[h.A].Iso.Near(m.Before.F[m.After.F[h.A].Parent].Iso, geom.Still) {
			into = h.A
		}
		l := geom.LineAt(hinge[i].A, hinge[i].B.Sub(hinge[i].A))
		n := l.N.Scale(math.Copysign(off, l.Side(m.After.F[into].Poly.Centroid())))
		hinge[i] = geom.Segment{A: hinge[i].A.Add(n), B: hinge[i].B.Add(n)}
	}
}

// sweeps bounds the relaxation where hinges form loops.
const sweeps = 60

// place finds where every piece lies after a motion: from a piece that kept its
// place (or moved with all others) over the hinges, each neighbour lying as the
// hinge's own line says. Where hinges form loops that do not close exactly, each
// piece then takes the mean of what its neighbours say, weighted by length.
func (sh *Toy) place(m fold.Move, before []geom.Iso2) {
	w := newWeb(m.After, sh.Hinge)
	root, turn := kept(m)
	w.iso = make([]geom.Iso2, len(m.After.F))
	for i, f := range m.After.F {
		w.iso[i] = turn.After(before[f.Parent])
	}
	order := w.from(root)
	if len(order)-1 < len(m.After.H) && w.gap() > 1e-9 {
		w.relax(order[1:])
		sh.Worst = math.Max(sh.Worst, w.gap())
	}
	sh.Iso = w.iso
}

// kept is a piece that kept its place in a motion; where all moved the first one, with
// how they all moved.
func kept(m fold.Move) (root fold.FacetID, turn geom.Iso2) {
	turn = geom.Identity
	for i, f := range m.After.F {
		if t := f.Iso.After(m.Before.F[f.Parent].Iso.Inverse()); t.Near(geom.Identity, geom.Still) {
			return fold.FacetID(i), geom.Identity
		} else if i == 0 {
			turn = t
		}
	}
	return 0, turn
}

// web is pieces held together by hinges.
type web struct {
	s        *fold.State
	hinge    []geom.Segment
	iso      []geom.Iso2 // where every piece lies
	step     []geom.Iso2 // of each hinge: how B lies, relative to A
	touching [][]int32   // the hinges of each piece
}

func newWeb(s *fold.State, hinge []geom.Segment) *web {
	w := &web{s: s, hinge: hinge, step: make([]geom.Iso2, len(s.H)), touching: make([][]int32, len(s.F))}
	for i, h := range s.H {
		w.step[i] = geom.Identity
		if h.Kind == fold.Glue {
			w.step[i] = s.F[h.A].Iso.Inverse().After(s.F[h.B].Iso)
		} else if s.F[h.A].Iso.FaceUp() != s.F[h.B].Iso.FaceUp() {
			w.step[i] = geom.Reflection(geom.LineAt(hinge[i].A, hinge[i].B.Sub(hinge[i].A)))
		}
		w.touching[h.A] = append(w.touching[h.A], int32(i))
		w.touching[h.B] = append(w.touching[h.B], int32(i))
	}
	return w
}

// says is where a hinge puts a piece, as its neighbour lies.
func (w *web) says(i int32, f fold.FacetID) geom.Iso2 {
	h := w.s.H[i]
	if h.B == f {
		return w.iso[h.A].After(w.step[i])
	}
	return w.iso[h.B].After(w.step[i].Inverse())
}

// from lays every piece beside the neighbour through which it is first reached, and tells
// in which order.
func (w *web) from(root fold.FacetID) []fold.FacetID {
	seen := make([]bool, len(w.s.F))
	seen[root] = true
	order := []fold.FacetID{root}
	for k := 0; k < len(order); k++ {
		for _, i := range w.touching[order[k]] {
			g, _ := w.s.H[i].Other(order[k])
			if !seen[g] {
				seen[g] = true
				w.iso[g] = w.says(i, g)
				order = append(order, g)
			}
		}
	}
	return order
}

// gap is how far apart the two pieces at a hinge come to lie at most.
func (w *web) gap() float64 {
	worst := 0.0
	for i, h := range w.s.H {
		p, q := w.hinge[i].A, w.hinge[i].B
		if h.Kind == fold.Glue {
			continue
		}
		a, b := w.iso[h.A], w.iso[h.B]
		worst = math.Max(worst, math.Max(a.Apply(p).Dist(b.Apply(p)), a.Apply(q).Dist(b.Apply(q))))
	}
	return worst
}

// relax lets each piece take the mean of what its hinges say until nothing changes.
func (w *web) relax(pieces []fold.FacetID) {
	for range sweeps {
		var change float64
		for _, f := range pieces {
			c := w.s.F[f].Poly.Centroid()
			var sx, sy, sum float64
			var at geom.Vec
			for _, i := range w.touching[f] {
				t := w.says(i, f)
				k := w.s.H[i].P.Dist(w.s.H[i].Q)
				at = at.Add(t.Apply(c).Scale(k))
				sx, sy, sum = sx+k*t.A, sy+k*t.C, sum+k
			}
			n := math.Hypot(sx, sy)
			if sum == 0 || n == 0 {
				continue
			}
			sign := 1.0
			if !w.s.F[f].Iso.FaceUp() {
				sign = -1
			}
			t := geom.Iso2{A: sx / n, C: sy / n, B: -sign * sy / n, D: sign * sx / n}
			to := at.Scale(1 / sum)
			here := t.Turn(c)
			t.TX, t.TY = to.X-here.X, to.Y-here.Y
			change = math.Max(change, t.Apply(c).Dist(w.iso[f].Apply(c)))
			w.iso[f] = t
		}
		if change < geom.Still {
			return
		}
	}
}
