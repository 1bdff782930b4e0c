package spin

import (
	"fmt"
	"math"
	"slices"

	"tussock/internal/body"
	"tussock/internal/geom"
	"tussock/internal/sequence"
)

// What wheels add to the pattern language: the blades that catch the air. The standing toy
// is looked at for them.
var language = sequence.Vocabulary{
	Moves: "spin",
	Heads: []sequence.Head{
		{Word: "blades", Kind: sequence.APoint, Least: 2, What: "the blades", Fix: "blades P1 P2 P3", Check: blades},
	},
	Entries: []sequence.Entry{
		{Group: "head", Word: "blades", Syntax: "P P…", Meaning: "A landmark on each blade of a wheel. Its leaves are parted about an axle, and stand evenly about it.",
			Example: "sheet square 150\nmoves spin\nblades L R T B\nuse preliminary\npart [C BL] into 4\nexpect facets 8"},
	},
}

// leastPointMM is how far from the axle a blade is marked.
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
