package spin

import (
	"fmt"
	"math"
	"slices"

	"tussock/internal/body"
	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/sequence"
)

// What spinners add to the pattern language: the point that one stands on, the blades that
// another catches the air with. The standing toy is looked at for each.
var language = sequence.Vocabulary{
	Moves: "spin",
	Heads: []sequence.Head{
		{Word: "stands", Kind: sequence.APoint, Least: 1, Most: 1, What: "the point it spins on", Fix: "stands TR", Check: point},
		{Word: "blades", Kind: sequence.APoint, Least: 2, What: "the blades", Fix: "blades P1 P2 P3", Check: blades},
	},
	Entries: []sequence.Entry{
		{Group: "head", Word: "stands", Syntax: "P", Meaning: "The point on which a token spins: a corner that is set up from the rest, and reaches further down than all else.",
			Example: "sheet square 100\nmoves spin\nstands TL\nvalley bring TL to C as tip\nopen along tip moving TL angle 90\nexpect TL at C within 0.001"},
		{Group: "head", Word: "blades", Syntax: "P P…", Meaning: "A landmark on each blade of a wheel. Its leaves are parted about an axle, and stand evenly about it.",
			Example: "sheet square 150\nmoves spin\nblades L R T B\nuse preliminary\npart [C BL] into 4\nexpect facets 8"},
	},
}

// point looks whether the landmark reaches further out of the plane of the body than all
// else, on its side.
func point(r *sequence.Replay, names []string) string {
	p := body.Standing(r)
	at := r.Landmarks[names[0]]
	f := p.State.FacetsAtSheet(at)
	if len(f) == 0 {
		return fmt.Sprintf("%s is not on the paper any more, so the toy cannot stand on it", r.Pattern.Called(names[0]))
	}
	z := p.At[f[0]].Apply(geom.Vec3{X: at.X, Y: at.Y}).Z
	if math.Abs(z) < leastPointMM {
		return fmt.Sprintf("%s lies in the plane of the toy, so it cannot stand on it: set it up by a step such as open along tip moving %s angle 90", r.Pattern.Called(names[0]), names[0])
	}
	for i := range p.State.F {
		for _, c := range p.Corners(fold.FacetID(i)) {
			if c.Z*math.Copysign(1, z) > math.Abs(z)+1e-6 {
				return fmt.Sprintf("%s is not the lowest point of the toy: something reaches %.1f mm further; bend it back, or name what does", r.Pattern.Called(names[0]), c.Z*math.Copysign(1, z)-math.Abs(z))
			}
		}
	}
	return ""
}

// leastPointMM is how far a point must stand out to be stood on.
const leastPointMM = 1.0

// unevenDeg is by how much a blade may stand off its even share of the turn.
const unevenDeg = 3.0

// blades looks whether they stand evenly about the line that the leaves are parted about.
func blades(r *sequence.Replay, names []string) string {
	if len(r.Parts) == 0 {
		return "blades stand about an axle, and no leaves are parted: add a step such as part [C M1] into 5"
	}
	p := body.Standing(r)
	axis := r.Parts[0].Pieces[0]
	place := func(v geom.Vec) (geom.Vec3, bool) {
		f := p.State.FacetsAtSheet(v)
		if len(f) == 0 {
			return geom.Vec3{}, false
		}
		return p.At[f[0]].Apply(geom.Vec3{X: v.X, Y: v.Y}), true
	}
	from, ok1 := place(axis.A)
	to, ok2 := place(axis.B)
	if !ok1 || !ok2 {
		return ""
	}
	dir := to.Sub(from).Unit()
	across := dir.Cross(geom.Vec3{X: 0.36, Y: 0.48, Z: 0.8}).Unit() // any direction square to it
	type blade struct {
		name string
		deg  float64
	}
	var all []blade
	for _, n := range names {
		at, ok := place(r.Landmarks[n])
		out := at.Sub(from)
		out = out.Sub(dir.Scale(out.Dot(dir)))
		if !ok || out.Len() < leastPointMM {
			return fmt.Sprintf("%s lies on the axle, so it marks no blade: name a spot further out", r.Pattern.Called(n))
		}
		all = append(all, blade{n, geom.Deg(math.Atan2(out.Dot(dir.Cross(across)), out.Dot(across)))})
	}
	slices.SortFunc(all, func(a, b blade) int {
		if a.deg < b.deg {
			return -1
		}
		return 1
	})
	even := 360 / float64(len(all))
	for i, b := range all {
		next := all[(i+1)%len(all)]
		gap := math.Mod(next.deg-b.deg+360, 360)
		if len(all) > 1 && math.Abs(gap-even) > unevenDeg {
			return fmt.Sprintf("the blades at %s and %s stand %.0f° apart, not %.0f°: name one spot on each blade, all alike, or part the leaves evenly", r.Pattern.Called(b.name), r.Pattern.Called(next.name), gap, even)
		}
	}
	return ""
}
