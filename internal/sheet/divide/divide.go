// Package divide finds ways to divide a sheet by a few folds, without a ruler.
//
// In words: fold a diagonal, fold a line from a corner to the middle of an edge;
// where the two cross is a third of the way up. The search tries every such short
// chain of creases that the corners, edges and earlier creases offer, and keeps
// those whose last crease meets an edge where it is wanted, or leaves a corner at
// the angle that is wanted.
//
// Creases are those of flat folding: through two points (O1), point to point (O2),
// edge to edge or to a crease (O3). What is found is exact where it is said so, else
// off by so many millimetres or degrees on the sheet at hand.
package divide

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"tussock/internal/geom"
)

// MaxCreases bounds the length of a recipe.
const MaxCreases = 4

// exactMM is the error below which a recipe counts as exact.
const exactMM = 1e-7

// Crease is one fold of a recipe: made, pressed, and opened again.
type Crease struct {
	Line  geom.Segment
	Words string
}

// Recipe divides an edge or an angle.
type Recipe struct {
	Creases  []Crease
	Mark     geom.Vec // where the last crease meets the edge; the corner for an angle
	Value    float64  // the fraction or the angle in degrees that comes about
	ErrorMM  float64  // against the wanted one, along the edge (for an angle at its far end)
	ErrorDeg float64  // signed, for an angle and for a mark (see Along)
	Exact    bool
}

// Edge is an edge of the sheet and the end that fractions are counted from: two
// neighbouring corners, 0 lower left, 1 lower right, 2 upper right, 3 upper left.
type Edge struct{ From, To int }

// LeftEdge is the left edge from below.
var LeftEdge = Edge{0, 3}

// Words is what people call the edge.
func (e Edge) Words() string {
	switch (Edge{min(e.From, e.To), max(e.From, e.To)}) {
	case Edge{0, 1}:
		return "the lower edge"
	case Edge{1, 2}:
		return "the right edge"
	case Edge{2, 3}:
		return "the upper edge"
	}
	return "the left edge"
}

// Fraction finds recipes for a mark at a fraction of the left edge, from below, of
// a sheet. The best of each number of creases is given, fewest first, those that
// are no better than a shorter one left out.
func Fraction(widthMM, heightMM, fraction float64) []Recipe {
	return Along(widthMM, heightMM, LeftEdge, fraction)
}

// Along is Fraction for any edge. ErrorDeg is the error as an angle, seen from the
// corner across the sheet from the edge's beginning.
func Along(widthMM, heightMM float64, e Edge, fraction float64) []Recipe {
	s := newSearch(widthMM, heightMM)
	from, to := s.outline[e.From], s.outline[e.To]
	edge, _ := geom.LineThrough(from, to)
	length, dir := from.Dist(to), to.Sub(from).Unit()
	across := s.outline[(2*e.From-e.To+4)%4] // the other neighbour of the beginning
	want := from.Add(dir.Scale(fraction * length))
	s.wanted = func(l geom.Line) (Recipe, bool) {
		p, ok := geom.Meet(l, edge)
		if !ok {
			return Recipe{}, false
		}
		t := dir.Dot(p.Sub(from))
		if t < 1e-6 || t > length-1e-6 {
			return Recipe{}, false
		}
		a, b := p.Sub(across), want.Sub(across)
		off := geom.Deg(math.Atan2(b.Cross(a), b.Dot(a)))
		return Recipe{Mark: p, Value: t / length, ErrorMM: math.Abs(t - fraction*length), ErrorDeg: off}, true
	}
	return s.run()
}

// Angle finds recipes for a crease out of the lower left corner at an angle from
// the lower edge.
func Angle(widthMM, heightMM, deg float64) []Recipe {
	s := newSearch(widthMM, heightMM)
	corner := geom.Vec{}
	s.wanted = func(l geom.Line) (Recipe, bool) {
		if math.Abs(l.Side(corner)) > 1e-9 {
			return Recipe{}, false
		}
		a := geom.Deg(math.Atan2(l.Dir().Y, l.Dir().X))
		a = math.Mod(a+360, 180)
		if a < 1e-6 || a > 90-1e-6 {
			return Recipe{}, false
		}
		end, _ := s.outline.Exit(geom.Vec{X: 1e-9, Y: 1e-9}, geom.Vec{X: math.Cos(geom.Rad(a)), Y: math.Sin(geom.Rad(a))})
		off := a - deg
		return Recipe{Mark: corner, Value: a, ErrorDeg: off, ErrorMM: end.Len() * math.Abs(math.Tan(geom.Rad(off)))}, true
	}
	return s.run()
}

type point struct {
	at   geom.Vec
	name string
}

type line struct {
	geom.Line
	name string
}

type search struct {
	outline geom.Polygon
	wanted  func(geom.Line) (Recipe, bool)
	best    [MaxCreases + 1]*Recipe
}

func newSearch(w, h float64) *search {
	return &search{outline: geom.Polygon{{}, {X: w}, {X: w, Y: h}, {Y: h}}}
}

func (s *search) run() []Recipe {
	o := s.outline
	pts := []point{{o[0], "the lower left corner"}, {o[1], "the lower right corner"}, {o[2], "the upper right corner"}, {o[3], "the upper left corner"}}
	var lines []line
	for i, n := range []string{"the lower edge", "the right edge", "the upper edge", "the left edge"} {
		l, _ := geom.LineThrough(o[i], o[(i+1)%4])
		lines = append(lines, line{l, n})
	}
	s.extend(pts, lines, len(pts), len(lines), nil)
	var out []Recipe
	least := math.Inf(1)
	for _, r := range s.best {
		if r != nil && r.ErrorMM < least-1e-9 {
			least = r.ErrorMM
			r.Exact = r.ErrorMM < exactMM
			out = append(out, *r)
		}
	}
	slices.SortStableFunc(out, func(a, b Recipe) int { return cmp.Compare(len(a.Creases), len(b.Creases)) })
	return out
}

// extend adds one more crease in every way that uses something new, and goes on.
// newPts and newLines are where the new things begin.
func (s *search) extend(pts []point, lines []line, newPts, newLines int, made []Crease) {
	if len(made) == MaxCreases {
		return
	}
	first := made == nil
	seen := map[[3]int64]bool{}
	for _, l := range lines {
		seen[key(l.Line)] = true
	}
	try := func(l geom.Line, words string) {
		k := key(l)
		if seen[k] {
			return
		}
		seen[k] = true
		seg, ok := s.outline.ClipLine(l)
		if !ok || seg.Len() < 1 {
			return
		}
		chain := append(slices.Clone(made), Crease{seg, words})
		if r, ok := s.wanted(l); ok {
			if b := s.best[len(chain)]; b == nil || r.ErrorMM < b.ErrorMM-1e-9 {
				r.Creases = chain
				s.best[len(chain)] = &r
			}
		}
		if len(chain) >= MaxCreases || s.done(len(chain)) {
			return
		}
		name := fmt.Sprintf("crease %d", len(chain))
		more := slices.Clone(pts)
		add := func(p geom.Vec, n string) {
			for _, q := range more {
				if q.at.Dist(p) < 0.5 {
					return
				}
			}
			more = append(more, point{p, n})
		}
		for _, q := range lines {
			if p, ok := geom.Meet(l, q.Line); ok && s.outline.Contains(p, 1e-6) {
				add(p, "where "+name+" meets "+q.name)
			}
		}
		s.extend(more, append(slices.Clone(lines), line{l, name}), len(pts), len(lines), chain)
	}
	for i, a := range pts {
		for j, b := range pts[:i] {
			if !first && i < newPts && j < newPts {
				continue
			}
			if l, ok := geom.LineThrough(b.at, a.at); ok {
				try(l, "Crease through "+b.name+" and "+a.name+".")
			}
			if l, ok := geom.FoldPointToPoint(b.at, a.at); ok {
				try(l, "Bring "+b.name+" to "+a.name+", and open.")
			}
		}
	}
	for i, a := range lines {
		for j, b := range lines[:i] {
			if !first && i < newLines && j < newLines {
				continue
			}
			for _, l := range geom.FoldLineToLine(b.Line, a.Line) {
				try(l, "Bring "+b.name+" to "+a.name+", and open.")
			}
		}
	}
}

// done tells whether a recipe with so many creases or fewer is exact already: no
// longer one is then of use.
func (s *search) done(n int) bool {
	for _, r := range s.best[:n+1] {
		if r != nil && r.ErrorMM < exactMM {
			return true
		}
	}
	return false
}

func key(l geom.Line) [3]int64 {
	n, d := l.N, l.D
	if n.X < -1e-9 || math.Abs(n.X) < 1e-9 && n.Y < 0 {
		n, d = n.Scale(-1), -d
	}
	return [3]int64{int64(math.Round(n.X * 1e6)), int64(math.Round(n.Y * 1e6)), int64(math.Round(d * 1e4))}
}
