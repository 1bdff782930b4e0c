package sequence

import (
	"fmt"
	"math"

	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/say"
	"tussock/internal/sequence/places"
)

// check carries out an expect statement.
func (r *Course) check(s ExpectStmt) error {
	if r.Sh != nil {
		return r.skipCheck(s)
	}
	failed := func(format string, a ...any) error { return fold.Errorf(fold.CodeCheck, format, a...) }
	switch {
	case s.Facets > 0:
		if n := len(r.State.F); n != s.Facets {
			return failed("the creases should divide the paper into %d pieces, and divide it into %d", s.Facets, n)
		}
		return nil
	case s.Unique:
		if c := r.State.Choice; c != nil {
			a, b := r.Places().Pair(r.State, c.I, c.J)
			return failed("the layers can lie in more than one way: %s and %s can change places", a, b)
		}
		return nil
	case s.M != nil:
		l, _, err := s.L.Folded(r)
		if err != nil {
			return err
		}
		m, _, err := s.M.Folded(r)
		if err != nil {
			return err
		}
		off := geom.Deg(math.Asin(math.Min(1, math.Abs(l.N.Cross(m.N)))))
		if off > s.Within.Num(r) {
			return r.missed(s, s.L.Words(r), off, failed("%s should run parallel to %s and is %.1f° off", s.L.Words(r), s.M.Words(r), off))
		}
		return nil
	}
	p, err := s.P.Folded(r)
	if err != nil {
		return err
	}
	switch {
	case s.Sheets > 0:
		at, err := s.P.Sheet(r)
		if err != nil {
			return err
		}
		if n := r.layersAt(at); n != s.Sheets {
			return failed("there should be %d layers at %s, and there are %d", s.Sheets, s.P.Words(r), n)
		}
		return nil
	case s.Below != nil:
		return r.checkAbove(s)
	case s.Q != nil:
		q, err := s.Q.Folded(r)
		if err != nil {
			return err
		}
		return r.checkNear(s, p.Dist(q), "at "+s.Q.Words(r))
	}
	l, _, err := s.L.Folded(r)
	if err != nil {
		return err
	}
	return r.checkNear(s, math.Abs(l.Side(p)), "on "+s.L.Words(r))
}

// skipCheck evaluates what the nominal run evaluated, so that the choices stay in
// step, and asks nothing.
func (r *Course) skipCheck(s ExpectStmt) error {
	if s.Facets > 0 || s.Unique {
		return nil
	}
	if s.M != nil {
		if _, _, err := s.L.Folded(r); err != nil {
			return err
		}
		_, _, err := s.M.Folded(r)
		return err
	}
	if _, err := s.P.Folded(r); err != nil {
		return err
	}
	var err error
	switch {
	case s.Sheets > 0:
		_, err = s.P.Sheet(r)
	case s.Below != nil:
		if _, err = s.P.Sheet(r); err == nil {
			_, err = s.Below.Sheet(r)
		}
	case s.Q != nil:
		_, err = s.Q.Folded(r)
	default:
		_, _, err = s.L.Folded(r)
	}
	return err
}

func (r *Course) checkNear(s ExpectStmt, off float64, where string) error {
	if off > s.Within.Num(r) {
		return r.missed(s, s.P.Words(r), off, fold.Errorf(fold.CodeCheck, "%s should now lie %s and is %s away", s.P.Words(r), where, say.MM(off, 1)))
	}
	return nil
}

// missed keeps a miss where the replay is to go on, else stops it.
func (r *Course) missed(s ExpectStmt, what string, off float64, err error) error {
	if !r.lax {
		return err
	}
	r.Out.Misses = append(r.Out.Misses, Miss{Step: len(r.Out.Steps), Line: s.Line, Landmark: what, MM: off, Detail: err.Error()})
	return nil
}

func (r *Course) checkAbove(s ExpectStmt) error {
	p, err := s.P.Sheet(r)
	if err != nil {
		return err
	}
	q, err := s.Below.Sheet(r)
	if err != nil {
		return err
	}
	for _, a := range r.State.FacetsAtSheet(p) {
		for _, b := range r.State.FacetsAtSheet(q) {
			if r.State.Above(a, b) < 0 {
				return fold.Errorf(fold.CodeCheck, "%s should lie above %s, and lies beneath it", s.P.Words(r), s.Below.Words(r))
			}
		}
	}
	return nil
}

// Places are words for pieces and spots, by the landmarks that there are by now.
func (r *Course) Places() places.Places { return places.Places{Marks: r.Points, Called: r.Pat.Called} }

func (r *Course) creaseWords(c fold.CreaseID) string {
	if c < 1 || int(c) > len(r.Pat.Steps) {
		return ""
	}
	s := r.Pat.Steps[c-1]
	if w := r.Pat.Called(s.Name); s.Name != "" {
		return "at " + w
	}
	return fmt.Sprintf("at the crease of step %d", s.No)
}
