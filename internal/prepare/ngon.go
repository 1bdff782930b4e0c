package prepare

import (
	"fmt"
	"math"

	"tussock/internal/say"
	"tussock/internal/sheet"
)

// Ways to a regular sheet from a square, by folding all sectors on one another and
// one cut.

// exactPart is where the mark of a pentagon lies, as a part of half the side from
// the middle: cot 72°. The customary third is off by 0.43° (arctan 3 = 71.57°).
var exactPart = 1 / math.Tan(2*math.Pi/5)

// ngons are the ways for n corners from a square of the given side, the best last
// of those that need as few folds. There is none for seven: no short chain of folds
// comes near enough, and the printed outline does.
func ngons(n int, side float64) []way {
	half := told("valley bring top to bottom as half", "Fold the upper edge down to the lower edge.")
	cut := func(part float64) string {
		return lines(told(fmt.Sprintf("cut through part(C,L,%s) square [C L] removing BL", num(part)), "Cut once through all layers, square to the folded edge, as far out as all layers reach."), openAll)
	}
	offs := func(folds int) []Off {
		return []Off{{fmt.Sprintf("%d folds on one another", folds), handMM * math.Sqrt(float64(folds))}, {"the cut", cutMM}}
	}
	switch n {
	case 3:
		top := fmt.Sprintf("sheet(%s,%s)", num(side/2), num(side*math.Sqrt(3)/2))
		return []way{{id: "triangle", name: "Corner to the middle line", needs: "scissors", polygon: 3, offs: offs(2), text: lines(
			told("crease bring left to right as v", "Fold the left edge to the right edge, and open."),
			told("valley bring BR to v through BL near T as f", "Bring the lower right corner to the middle crease. The fold starts in the lower left corner. Mark where the corner lies."),
			told("unfold last", "Open. The mark is the top of the triangle."),
			told("cut through BL "+top+" removing TL", "Cut from the lower left corner through the mark."),
			told("cut through BR "+top+" removing TR", "Cut from the lower right corner to the mark."))}}
	case 5:
		// The mark lies on the raw edge of the halved square, at a part of half the
		// side from the middle; from there on every fan copies the first.
		fan := func(id, name string, part float64, words string) way {
			mark := fmt.Sprintf("sheet(%s,0)", num(side/2*(1-part)))
			return way{id: id, name: name, needs: "scissors", polygon: 5, offs: offs(4), text: lines(half,
				told("valley bring [C L] to [C "+mark+"] layers all as e1", words),
				told("mountain along [C L] moving R", "Fold the rest behind, along the edge that has come over."),
				told("mountain along e1 moving R", "Fold it behind again, along the first fold."),
				told("mountain along [C L] moving R", "And once more, so that all fans lie on one another."),
				told("cut through part(C,L,0.8) square [C L] removing BL", "Cut once through all layers, square to the edge."), openAll)}
		}
		return []way{
			fan("pentagon-custom", "Pentagon, the customary mark", 1.0/3, fmt.Sprintf("Mark the raw edges %s left of their middle, a third of the half. Bring the fold's left half to the line from its middle to the mark.", say.MM(side/6, 1))),
			fan("pentagon-exact", "Pentagon, the exact mark", exactPart, fmt.Sprintf("Mark the raw edges %s left of their middle. Bring the fold's left half to the line from its middle to the mark.", say.MM(exactPart*side/2, 1))),
		}
	case 6:
		return []way{{id: "hexagon", name: "Hexagon, exact", needs: "scissors", polygon: 6, offs: offs(4), text: lines(half,
			told("valley bring L to square(part(C,R,1/2),[C R]) through C layers all as e1", "Mark half-way from the middle to the right. Bring the left end to the upright through the mark; the fold goes through the middle."),
			told("valley bring [C R] to e1 layers all as e2", "Bring the right half of the fold to the new edge."),
			told("valley bring e1 to e2 layers all as e3", "Halve what lies over it."),
			cut(0.86))}}
	case 8:
		return []way{{id: "octagon", name: "Octagon, exact", needs: "scissors", polygon: 8, offs: offs(4), text: lines(half,
			told("valley bring L to R layers all as e1", "Fold the left end over to the right end."),
			told("valley bring [C R] to [C B] layers all as e2", "Bring the folded edge down to the upright edge."),
			told("valley bring [C R] to e2 layers all as e3", "Halve the wedge."),
			cut(0.98))}}
	}
	return nil
}

// Regular is how far a piece is from having equal sides and angles.
type Regular struct {
	SideMM float64 // the mean side
	OffMM  float64 // by how much the side that differs most differs
	OffDeg float64 // by how much the angle at a corner that differs most differs
}

// Largest is the side of the largest regular sheet with n corners in a rectangle,
// upright (its lowest side level) or, for a pentagon in a square, tilted by 9°.
func Largest(n int, s sheet.Sheet) (sideMM, tiltDeg float64) {
	try := func(tilt float64) float64 {
		box := ngonBox(n, tilt)
		return math.Min(s.WidthMM/box[0], s.HeightMM/box[1])
	}
	best := try(0)
	for step := 360 / float64(n) / 900; step > 1e-6; step /= 10 {
		// First all tilts, then about the best one, finer and finer.
		from, to := tiltDeg-10*step, tiltDeg+10*step
		if step*901 > 360/float64(n) {
			from, to = 0, 360/float64(n)
		}
		for t := from; t <= to; t += step {
			if r := try(t); r > best*(1+1e-9) {
				best, tiltDeg = r, t
			}
		}
	}
	return best, tiltDeg
}

// ngonBox is the width and height of a regular n-gon of side 1, turned.
func ngonBox(n int, tiltDeg float64) [2]float64 {
	r := 0.5 / math.Sin(math.Pi/float64(n))
	var lo, hi [2]float64
	for k := range n {
		a := -math.Pi/2 - math.Pi/float64(n) + 2*math.Pi*float64(k)/float64(n) + tiltDeg*math.Pi/180
		for i, v := range []float64{r * math.Cos(a), r * math.Sin(a)} {
			if k == 0 || v < lo[i] {
				lo[i] = v
			}
			if k == 0 || v > hi[i] {
				hi[i] = v
			}
		}
	}
	return [2]float64{hi[0] - lo[0], hi[1] - lo[1]}
}
