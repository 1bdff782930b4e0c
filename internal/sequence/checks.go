package sequence

import (
	"fmt"
	"math"
	"strings"

	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/sheet"
)

// check carries out an expect statement.
func (r *run) check(s expectStmt) error {
	if r.sh != nil {
		return r.skipCheck(s)
	}
	failed := func(format string, a ...any) error { return fold.Errorf(fold.CodeCheck, format, a...) }
	switch {
	case s.facets > 0:
		if n := len(r.state.F); n != s.facets {
			return failed("the creases should divide the paper into %d pieces, and divide it into %d", s.facets, n)
		}
		return nil
	case s.unique:
		if c := r.state.Choice; c != nil {
			a, b := r.pairWords(r.state, c.I, c.J)
			return failed("the layers can lie in more than one way: %s and %s can change places", a, b)
		}
		return nil
	case s.m != nil:
		l, _, err := s.l.folded(r)
		if err != nil {
			return err
		}
		m, _, err := s.m.folded(r)
		if err != nil {
			return err
		}
		off := geom.Deg(math.Asin(math.Min(1, math.Abs(l.N.Cross(m.N)))))
		if off > s.within.num(r) {
			return r.missed(s, s.l.words(r), off, failed("%s should run parallel to %s and is %.1f° off", s.l.words(r), s.m.words(r), off))
		}
		return nil
	}
	p, err := s.p.folded(r)
	if err != nil {
		return err
	}
	switch {
	case s.sheets > 0:
		at, err := s.p.sheet(r)
		if err != nil {
			return err
		}
		if n := r.layersAt(at); n != s.sheets {
			return failed("there should be %d layers at %s, and there are %d", s.sheets, s.p.words(r), n)
		}
		return nil
	case s.below != nil:
		return r.checkAbove(s)
	case s.q != nil:
		q, err := s.q.folded(r)
		if err != nil {
			return err
		}
		return r.checkNear(s, p.Dist(q), "at "+s.q.words(r))
	}
	l, _, err := s.l.folded(r)
	if err != nil {
		return err
	}
	return r.checkNear(s, math.Abs(l.Side(p)), "on "+s.l.words(r))
}

// skipCheck evaluates what the nominal run evaluated, so that the choices stay in
// step, and asks nothing.
func (r *run) skipCheck(s expectStmt) error {
	if s.facets > 0 || s.unique {
		return nil
	}
	if s.m != nil {
		if _, _, err := s.l.folded(r); err != nil {
			return err
		}
		_, _, err := s.m.folded(r)
		return err
	}
	if _, err := s.p.folded(r); err != nil {
		return err
	}
	var err error
	switch {
	case s.sheets > 0:
		_, err = s.p.sheet(r)
	case s.below != nil:
		if _, err = s.p.sheet(r); err == nil {
			_, err = s.below.sheet(r)
		}
	case s.q != nil:
		_, err = s.q.folded(r)
	default:
		_, _, err = s.l.folded(r)
	}
	return err
}

func (r *run) checkNear(s expectStmt, off float64, where string) error {
	if off > s.within.num(r) {
		return r.missed(s, s.p.words(r), off, fold.Errorf(fold.CodeCheck, "%s should now lie %s and is %.1f mm away", s.p.words(r), where, off))
	}
	return nil
}

// missed keeps a miss where the replay is to go on, else stops it.
func (r *run) missed(s expectStmt, what string, off float64, err error) error {
	if !r.lax {
		return err
	}
	r.out.Misses = append(r.out.Misses, Miss{Step: len(r.out.Steps), Line: s.line, Landmark: what, MM: off, Detail: err.Error()})
	return nil
}

func (r *run) checkAbove(s expectStmt) error {
	p, err := s.p.sheet(r)
	if err != nil {
		return err
	}
	q, err := s.below.sheet(r)
	if err != nil {
		return err
	}
	for _, a := range r.state.FacetsAtSheet(p) {
		for _, b := range r.state.FacetsAtSheet(q) {
			if r.state.Above(a, b) < 0 {
				return fold.Errorf(fold.CodeCheck, "%s should lie above %s, and lies beneath it", s.p.words(r), s.below.words(r))
			}
		}
	}
	return nil
}

// explain says with landmarks what an error says of pieces of paper.
func (r *run) explain(e *fold.Error) {
	if len(e.Pieces) == 0 {
		return
	}
	switch {
	case e.Code == fold.CodeLayers && e.Rule == "pierce" && len(e.Pieces) > 2:
		a, b := r.pairWords(r.state, e.Pieces[1], e.Pieces[2])
		e.Detail = fmt.Sprintf("%s would have to pass through the fold between %s and %s", r.pieceWords(r.state, e.Pieces[0]), a, b)
	case e.Code == fold.CodeLayers:
		names := make([]string, 0, len(e.Pieces))
		for _, f := range e.Pieces {
			if w := r.pieceWords(r.state, f); !strings.Contains(strings.Join(names, "\n"), w) {
				names = append(names, w)
			}
		}
		e.Detail = fmt.Sprintf("layers would have to pass through each other (%s): it is about %s", e.Detail, listAnd(names))
	case e.Code == fold.CodeTear:
		if n := r.creaseWords(e.Crease); n != "" {
			e.Detail += ", " + n
		}
		a, b := r.pairWords(r.state, e.Pieces[0], e.Pieces[1])
		e.Detail += ", between " + a + " and " + b
	}
}

func listAnd(w []string) string {
	if len(w) == 1 {
		return w[0]
	}
	return strings.Join(w[:len(w)-1], ", ") + " and " + w[len(w)-1]
}

func (r *run) creaseWords(c fold.CreaseID) string {
	if c < 1 || int(c) > len(r.pat.Steps) {
		return ""
	}
	s := r.pat.Steps[c-1]
	if w := r.pat.Called(s.Name); s.Name != "" {
		return "at " + w
	}
	return fmt.Sprintf("at the crease of step %d", s.No)
}

// pieceWords names a piece of paper by the landmark nearest to its middle that
// lies on it: "the flap at the top left corner". Landmarks of the pattern come
// before those of every sheet only where they are corners of the piece.
func (r *run) pieceWords(s *fold.State, f fold.FacetID) string {
	poly := s.F[f].Poly
	c := poly.Centroid()
	best, dist := "", math.Inf(1)
	for name, p := range r.points {
		if !poly.Contains(p, geom.OnPaper) {
			continue
		}
		d := p.Dist(c)
		corner := name == "TL" || name == "TR" || name == "BL" || name == "BR"
		if corner {
			d -= 1e6 // a corner of the sheet says most
		}
		if d < dist-geom.OnLine || d < dist+geom.OnLine && name < best {
			best, dist = name, d
		}
	}
	if best == "" {
		return spotWords(c)
	}
	return "the flap at " + r.pat.Called(best)
}

func spotWords(c geom.Vec) string {
	return fmt.Sprintf("the layer that was at (%s, %s) mm of the flat sheet", sheet.Number(math.Round(c.X)), sheet.Number(math.Round(c.Y)))
}

// pairWords names two pieces apart: by landmarks where these differ, else by where
// they were on the flat sheet.
func (r *run) pairWords(s *fold.State, a, b fold.FacetID) (string, string) {
	u, v := r.pieceWords(s, a), r.pieceWords(s, b)
	if u == v {
		return spotWords(s.F[a].Poly.Centroid()), spotWords(s.F[b].Poly.Centroid())
	}
	return u, v
}
