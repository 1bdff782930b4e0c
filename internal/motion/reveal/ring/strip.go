package ring

import (
	"fmt"
	"math"
)

// Triangles that a strip needs: three for a face and one to glue.
func Triangles(faces int) int { return 3*faces + 1 }

// SideMM is the side of a triangle in a strip of a width.
func SideMM(width float64) float64 { return 2 * width / math.Sqrt(3) }

// WidthMM is the width of a strip with triangles of a side.
func WidthMM(side float64) float64 { return side * math.Sqrt(3) / 2 }

// LengthMM is how long a strip of triangles is, points included.
func LengthMM(width float64, triangles int) float64 {
	return float64(triangles+1) / 2 * SideMM(width)
}

// WidestMM is the widest strip whose triangles fit on a length.
func WidestMM(length float64, triangles int) float64 {
	return WidthMM(2 * length / float64(triangles+1))
}

// Joined is a strip put together from pieces.
type Joined struct {
	Pieces  []int // triangles of each, the glued one included
	OverMM  float64
	LongMM  float64 // of the longest piece
	AtLeaf  []int   // the triangle that each joint but the first piece begins with lies on
	TotalMM float64
}

// Join divides a strip into the fewest pieces that fit on a length, alike as far as can be;
// each piece after the first begins with the triangle that the one before ends with, glued
// one on the other. The error says when not even two triangles fit.
func Join(width float64, triangles int, length float64) (Joined, error) {
	most := int(math.Floor(2*length/SideMM(width)+1e-9)) - 1
	if most < 3 {
		return Joined{}, fmt.Errorf("a strip %.1f mm wide needs at least %.1f mm for three triangles", width, LengthMM(width, 3))
	}
	out := Joined{OverMM: SideMM(width), TotalMM: LengthMM(width, triangles)}
	pieces := 1
	for (most-1)*pieces+1 < triangles {
		pieces++
	}
	all := triangles + pieces - 1 // each joint doubles one
	at := 0
	for i := range pieces {
		n := all / pieces
		if i < all%pieces {
			n++
		}
		if i > 0 {
			out.AtLeaf = append(out.AtLeaf, at)
		}
		at += n - 1
		if i == 0 {
			at = n
		}
		out.Pieces = append(out.Pieces, n)
		out.LongMM = math.Max(out.LongMM, LengthMM(width, n))
	}
	return out, nil
}

// Bisected is how a guessed start comes to 60° by folding edge to crease again and again:
// each fold halves what is left of the turn, so a start that is off by e leaves -e/2 after
// one, e/4 after two. Degrees.
func Bisected(start float64, folds int) float64 {
	return 60 + (start-60)*math.Pow(-0.5, float64(folds))
}

// FoldsTo is how many such folds bring a start within a limit of 60°.
func FoldsTo(start, within float64) int {
	for n := 0; n < 60; n++ {
		if math.Abs(Bisected(start, n)-60) <= within {
			return n
		}
	}
	return 60
}

// CreepMM is how much later leaves of a strip come out of place by thickness: rolled, every
// turn goes round all those inside; zigzagged, each goes round the one beside it, and to and
// fro cancels.
func CreepMM(thickness float64, leaves int) (rolled, zigzag float64) {
	for k := 1; k < leaves; k++ {
		rolled += math.Pi / 2 * thickness * float64(k)
	}
	return rolled, math.Pi / 2 * thickness
}

// SideErrorMM is by how much a side is off when the width is.
func SideErrorMM(widthOff float64) float64 { return SideMM(widthOff) }
