package operations

import (
	"math"
	"slices"

	"tussock/internal/closure"
	"tussock/internal/fold"
	"tussock/internal/fold/steps"
	"tussock/internal/geom"
)

const (
	flexFrames = 24   // of each half of a flex
	apartMM    = 1e-4 // that pieces are, to tell which lies over which
)

// flexed are the orders of layers that a ring has after it flexes: some joints are shut
// first, and from the star that comes about others are opened. What lies on what is read
// off the way, so the order is the one that the motion leads to, and pieces that go
// together keep theirs.
func flexed(s *fold.State, fixed fold.FacetID, lines []steps.Line, after []geom.Iso2) ([]fold.Hint, error) {
	m := closure.Of(s)
	from := m.Flat()
	opens, shuts := map[int]bool{}, map[int]float64{}
	for i, h := range s.H {
		for _, c := range lines {
			switch {
			case !h.Along(c.Seg):
			case c.Sense == steps.Open:
				opens[i] = true
			case from[i] == 0:
				shuts[i] = shutTo(s, h, c.Sense)
			}
		}
	}
	way, ok := throughStar(s, m, fixed, opens, shuts)
	if !ok { // pinched the other way, where the sense is left open
		for i := range shuts {
			shuts[i] = -shuts[i]
		}
		named := false
		for _, c := range lines {
			named = named || c.Sense == steps.Mountain || c.Sense == steps.Valley
		}
		if !named {
			way, ok = throughStar(s, m, fixed, opens, shuts)
		}
	}
	if !ok {
		return nil, fold.Errorf(fold.CodeTear, "the ring does not flex so: shutting these joints and opening those would tear the paper or take it through itself; try the next corner")
	}
	return ordersAlong(s, way, after), nil
}

// shutTo is the angle of a joint that is shut: in the sense named, or a mountain as one
// looks at the toy.
func shutTo(s *fold.State, h fold.Hinge, sense steps.Sense) float64 {
	up := s.F[h.A].Iso.FaceUp()
	if mountain := sense == steps.Mountain || sense == steps.Either && up; mountain {
		return math.Pi
	}
	return -math.Pi
}

// throughStar goes the way of a flex, and gives where every piece is along it.
func throughStar(s *fold.State, m *closure.Mechanism, fixed fold.FacetID, opens map[int]bool, shuts map[int]float64) ([][]geom.Iso3, bool) {
	// Pats are stiff: only the joints between them turn, and then those that open.
	flat := m.Flat()
	joint := func(i int) bool { return s.H[i].Kind == fold.Crease && flat[i] == 0 }
	first := closure.Ask{Root: fixed, Movers: joint, Loose: true}
	second := closure.Ask{Root: fixed, Movers: func(i int) bool { return opens[i] || joint(i) && shuts[i] == 0 }}
	for i := range s.H {
		if to := shuts[i]; to != 0 {
			first.Drives = append(first.Drives, closure.Drive{Hinge: int32(i), Want: to})
		}
		if opens[i] {
			second.Drives = append(second.Drives, closure.Drive{Hinge: int32(i), Want: 0})
		}
	}
	for _, w := range m.Ways(first) {
		star := m.Follow(first, w, flexFrames)
		if star.Part < 1 || star.State != closure.Sound {
			continue
		}
		second.From = star.Last().Rho
		for _, w := range m.Ways(second) {
			out := m.Follow(second, w, flexFrames)
			if out.Part == 1 && out.State == closure.Sound {
				var way [][]geom.Iso3
				for _, f := range append(star.Frames, out.Frames...) {
					way = append(way, f.At)
				}
				return way, true
			}
		}
	}
	return nil, false
}

// ordersAlong reads off a way to flat which of two pieces lies over the other at its end:
// as they lay when they were last apart.
func ordersAlong(s *fold.State, way [][]geom.Iso3, after []geom.Iso2) []fold.Hint {
	const why = "the layers of the ring would have to change places"
	var out []fold.Hint
	flat := make([]geom.Polygon, len(s.F))
	for i, f := range s.F {
		flat[i] = f.Poly.Moved(after[i])
	}
	for i := range s.F {
		for j := range i {
			common := geom.ClipConvex(flat[i], flat[j])
			if common == nil || !geom.Overlaps(flat[i], flat[j]) {
				continue
			}
			h := fold.Hint{I: fold.FacetID(i), J: fold.FacetID(j), Hard: true, Why: why}
			a, b := after[i].Inverse(), after[j].Inverse()
			for _, at := range slices.Backward(way) {
				var apart float64 // of j from i, along the front of i
				front := at[i].Turn(geom.Vec3{Z: 1})
				for _, v := range append(common, common.Centroid()) {
					p, q := a.Apply(v), b.Apply(v)
					apart += front.Dot(at[j].Apply(geom.Vec3{X: q.X, Y: q.Y}).Sub(at[i].Apply(geom.Vec3{X: p.X, Y: p.Y})))
				}
				if math.Abs(apart) > apartMM {
					h.Sign = 1
					if apart > 0 == after[i].FaceUp() {
						h.Sign = -1
					}
					break
				}
			}
			if h.Sign == 0 { // they go together all the way
				if h.Sign = s.Above(h.I, h.J); after[i].FaceUp() != s.F[i].Iso.FaceUp() {
					h.Sign = -h.Sign
				}
			}
			if h.Sign != 0 {
				out = append(out, h)
			}
		}
	}
	return out
}

// glued tells whether paper hangs together by glue, as a ring does.
func glued(s *fold.State) bool {
	return slices.ContainsFunc(s.H, func(h fold.Hinge) bool { return h.Kind == fold.Glue })
}

// ringFlexed gives the plan of a flex the order of layers that the motion leads to.
func ringFlexed(s *fold.State, fixed geom.Vec, lines []steps.Line, plan fold.Plan) (fold.Plan, error) {
	if len(plan.Splits) > 0 {
		return plan, fold.Errorf(fold.CodeNoLine, "a ring flexes along creases that are there, and one of these lines would make a new one")
	}
	after := make([]geom.Iso2, len(s.F))
	for i, f := range s.F {
		after[i] = f.Iso
	}
	for _, b := range plan.Bodies {
		for _, f := range b.Facets {
			after[f] = b.T.After(after[f])
		}
	}
	hints, err := flexed(s, s.FacetsAtSheet(fixed)[0], lines, after)
	plan.Hints = hints
	return plan, err
}
