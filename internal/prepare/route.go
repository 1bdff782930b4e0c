package prepare

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"tussock/internal/fold"
	"tussock/internal/fold/layermap"
	"tussock/internal/geom"
	"tussock/internal/given"
	"tussock/internal/sequence"
	"tussock/internal/sequence/operations"
	"tussock/internal/sheet"
)

// words are those of the fold engine: a sheet is no toy.
var words = operations.Language()

// Route is a way carried out on the sheet at hand.
type Route struct {
	ID, Name  string
	Scissors  bool
	Runs      []*sequence.Replay // one after the other, each on what the one before left
	Steps     []sequence.Done    // of all of them
	Piece     sheet.Sheet        // what comes out, its box at the origin
	Creases   []geom.Segment     // that stay in the piece
	Leftovers []Leftover         // worth keeping, the largest first
	ScrapMM2  float64            // the rest
	Minutes   float64            // an estimate
	ErrorMM   float64            // of the edges, one standard deviation of a careful adult
	Offs      []Off              // what it is made of
	Regular   *Regular           // for n-gons: what the folds themselves leave
	Turned    bool               // the sheet is laid the other way round first
}

// Leftover is a rectangle that falls off.
type Leftover struct{ WidthMM, HeightMM float64 }

// keepMM is the least side of a leftover that is worth keeping.
const keepMM = 15.0

// Ways are all ways from a sheet to what is wanted, the shortest first (least time);
// those without scissors alone when cutFree. Errors are *given.Error for a want
// that makes no sense and *Impossible for one that the sheet cannot give.
func Ways(s sheet.Sheet, w Want, cutFree bool) ([]Route, error) {
	if s.Shape != nil {
		return nil, &given.Error{Field: "sheet", Value: "a shaped sheet", Want: "a rectangle"}
	}
	if err := w.check(s); err != nil {
		return nil, err
	}
	// Squares and sizes do not care how the sheet lies: it is laid upright.
	turned := w.Kind != Margin && w.Kind != Ratio && s.WidthMM > s.HeightMM
	if turned {
		s.WidthMM, s.HeightMM = s.HeightMM, s.WidthMM
	}
	var out []Route
	for _, stages := range plan(s, w) {
		r, err := carryOut(s, stages)
		if err != nil {
			return nil, err
		}
		r.Turned = turned
		if !cutFree || !r.Scissors {
			out = append(out, *r)
		}
	}
	slices.SortStableFunc(out, func(a, b Route) int { return cmp.Compare(a.Minutes, b.Minutes) })
	return out, nil
}

// plan lists the ways as stages: ways carried out one after the other.
func plan(s sheet.Sheet, w Want) [][]way {
	single := func(ways []way) (out [][]way) {
		for _, v := range ways {
			out = append(out, []way{v})
		}
		return out
	}
	square := math.Abs(s.WidthMM-s.HeightMM) < 0.05
	switch w.Kind {
	case Square:
		switch {
		case w.WidthMM > 0 && w.WidthMM < s.WidthMM-1e-6:
			return single(trims(s, w.WidthMM, w.WidthMM))
		case square:
			return single(trims(s, s.WidthMM, s.HeightMM))
		}
		return single(squares(s))
	case Half:
		return single(halves(s))
	case Strip:
		return single(trims(s, w.WidthMM, s.HeightMM))
	case Ratio:
		x := math.Min(s.WidthMM, s.HeightMM/w.Ratio)
		return single(trims(s, x, x*w.Ratio))
	case Size:
		a, b := math.Min(w.WidthMM, w.HeightMM), math.Max(w.WidthMM, w.HeightMM)
		return single(trims(s, a, b))
	case Margin:
		return single(margins(s, w))
	}
	if w.N == 4 {
		return plan(s, Want{Kind: Square})
	}
	var out [][]way
	for _, v := range ngons(w.N, s.WidthMM) {
		if square {
			out = append(out, []way{v})
		} else {
			out = append(out, []way{squares(s)[0], v})
		}
	}
	return out
}

// carryOut does the stages and measures what they leave.
func carryOut(s sheet.Sheet, stages []way) (*Route, error) {
	last := stages[len(stages)-1]
	r := &Route{ID: last.id, Name: last.name, Piece: s}
	for _, w := range stages {
		if w.text == "" { // the sheet is what is wanted
			continue
		}
		text := fmt.Sprintf("pattern \"%s\"\nsheet rect %s %s\n%s\n", w.name, num(r.Piece.WidthMM), num(r.Piece.HeightMM), w.text)
		p, err := words.Parse(w.id, text)
		if err != nil {
			return nil, err
		}
		run := p.Run(r.Piece, nil)
		if run.Err != nil {
			return nil, run.Err
		}
		r.Runs = append(r.Runs, run)
		r.Steps = append(r.Steps, run.Steps...)
		r.Scissors = r.Scissors || w.needs != ""
		r.Offs = append(r.Offs, w.offs...)
		r.Minutes += float64(w.marks) * markSeconds / 60
		for _, d := range run.Steps {
			r.Minutes += seconds[d.Op] / 60
		}
		if err := r.measure(run, w.polygon); err != nil {
			return nil, err
		}
	}
	r.ErrorMM = total(r.Offs)
	slices.SortStableFunc(r.Leftovers, func(a, b Leftover) int {
		if a.WidthMM*a.HeightMM > b.WidthMM*b.HeightMM {
			return -1
		}
		return 1
	})
	return r, nil
}

// measure takes from a run the piece, its creases and what fell off.
func (r *Route) measure(run *sequence.Replay, corners int) error {
	s := run.Final()
	polys := make([]geom.Polygon, len(s.F))
	for i, f := range s.F {
		polys[i] = f.Poly
	}
	rims := layermap.Silhouette(layermap.Overlay(polys))
	if len(rims) != 1 {
		return &Impossible{Why: "the sheet would fall into several pieces"}
	}
	box := geom.EmptyBox().Grow(rims[0]...)
	origin := geom.Vec{X: box.MinX, Y: box.MinY}
	var err error
	if corners == 0 {
		r.Piece, err = sheet.New(box.Width(), box.Height(), r.Piece.GSM, r.Piece.ThicknessMM)
	} else {
		r.Piece, err = sheet.Polygon(rims[0], r.Piece.GSM, r.Piece.ThicknessMM)
		reg := regularity(rims[0])
		r.Regular = &reg
	}
	if err != nil {
		return err
	}
	r.Creases = r.Creases[:0]
	for _, h := range s.H {
		if h.Kind == fold.Crease && h.B >= 0 {
			r.Creases = append(r.Creases, geom.Segment{A: h.P.Sub(origin), B: h.Q.Sub(origin)})
		}
	}
	off, ring := fallen(run)
	for i, off := range off {
		if off.Area() < 0 { // the hole in a ring of scrap, counted with its rim
			r.ScrapMM2 += off.Area()
			continue
		}
		b := geom.EmptyBox().Grow(off...)
		if !ring[i] && len(off) == 4 && math.Abs(off.Area()-b.Width()*b.Height()) < 1 && math.Min(b.Width(), b.Height()) >= keepMM {
			r.Leftovers = append(r.Leftovers, Leftover{math.Min(b.Width(), b.Height()), math.Max(b.Width(), b.Height())})
		} else {
			r.ScrapMM2 += off.Area()
		}
	}
	return nil
}

// fallen are the outlines of what each cut took off, on the sheet, holes clockwise;
// ring tells which belong to a piece with a hole.
func fallen(run *sequence.Replay) (out []geom.Polygon, ring []bool) {
	had := 0
	for _, d := range run.Steps {
		now := d.After.Removed
		if len(now) > had {
			rims := layermap.Silhouette(layermap.Overlay(now[had:]))
			holed := slices.ContainsFunc(rims, func(p geom.Polygon) bool { return p.Area() < 0 })
			for _, p := range rims {
				out, ring = append(out, p), append(ring, holed)
			}
		}
		had = len(now)
	}
	return out, ring
}

// regularity compares the sides and angles of a piece with those of a regular one.
func regularity(p geom.Polygon) Regular {
	n := float64(len(p))
	var g Regular
	for i, a := range p {
		g.SideMM += a.Dist(p[(i+1)%len(p)]) / n
	}
	want := 180 - 360/n
	for i, a := range p {
		next, prev := p[(i+1)%len(p)], p[(i+len(p)-1)%len(p)]
		g.OffMM = math.Max(g.OffMM, math.Abs(a.Dist(next)-g.SideMM))
		u, v := prev.Sub(a).Unit(), next.Sub(a).Unit()
		g.OffDeg = math.Max(g.OffDeg, math.Abs(geom.Deg(math.Acos(math.Max(-1, math.Min(1, u.Dot(v)))))-want))
	}
	return g
}

// creep is by how much n layers inside a fold push the next out.
func creep(n int, thicknessMM float64) float64 { return math.Pi / 2 * float64(n) * thicknessMM }
