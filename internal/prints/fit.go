package prints

import (
	"math"
	"strings"

	"tussock/internal/geom"
)

// Wide is how wide a text is, as a part of its size.
type Wide func(text string) float64

// Printed are the widths of the print's own font.
func Printed(text string) float64 { return wideMM(text, 1) }

// Line is one line of a text that was fitted: At is its middle.
type Line struct {
	Text string
	At   geom.Vec
}

// Fitted is a text set into a shape.
type Fitted struct {
	SizeMM float64 // of the type; a line is as high as that
	Lines  []Line
}

// The least and the most that type is set in, mm: 5 pt can be read by most.
const (
	LeastTypeMM = 1.8
	MostTypeMM  = 16.0
)

// mostLines that a text is broken into, and how finely its size is found.
const mostLines, sizeSteps = 6, 24

// Fit sets a text as large as it goes into a convex shape, whose points run with the text: x
// to the right and y upward as it is read. Lines break between words, and all that is as wide
// as it can be; ok is false where it would be smaller than can be read.
func Fit(text string, in geom.Polygon, mostMM float64, wide Wide) (out Fitted, ok bool) {
	words := measured(strings.Fields(text), wide)
	if len(words) == 0 || len(in) < 3 {
		return Fitted{}, false
	}
	space := wide(" ")
	lo, hi := 0.0, mostMM
	if f, fits := fitAt(words, space, in, hi); fits {
		return f, hi >= LeastTypeMM
	}
	for range sizeSteps {
		mid := (lo + hi) / 2
		if f, fits := fitAt(words, space, in, mid); fits {
			out, lo = f, mid
		} else {
			hi = mid
		}
	}
	return out, out.SizeMM >= LeastTypeMM
}

// word is one that is not broken, and how wide it is as a part of its size.
type word struct {
	text string
	wide float64
}

func measured(all []string, wide Wide) []word {
	out := make([]word, len(all))
	for i, w := range all {
		out[i] = word{w, wide(w)}
	}
	return out
}

func spoken(words []word) string {
	said := make([]string, len(words))
	for i, w := range words {
		said[i] = w.text
	}
	return strings.Join(said, " ")
}

// fitAt sets words in a size. The stack of lines is tried at places from the top of the shape
// to its bottom; of those that hold it the one in which it lies nearest to the shape's centre
// is taken.
func fitAt(words []word, space float64, in geom.Polygon, size float64) (Fitted, bool) {
	box := geom.EmptyBox().Grow(in...)
	centre := in.Centroid()
	best, found := Fitted{SizeMM: size}, false
	nearest := math.Inf(1)
	for n := 1; n <= min(mostLines, len(words)); n++ {
		room := box.Height() - float64(n)*size
		if room < -1e-9 {
			break
		}
		const places = 24
		for i := range places + 1 {
			top := box.MaxY - math.Max(room, 0)*float64(i)/places
			lines, ok := stacked(words, space, n, in, top, size)
			off := math.Abs(top - float64(n)*size/2 - centre.Y)
			if ok && off < nearest {
				best.Lines, nearest, found = lines, off, true
			}
		}
	}
	return best, found
}

// stacked breaks words into exactly n lines below a height, each as wide as the shape is
// there.
func stacked(words []word, space float64, n int, in geom.Polygon, top, size float64) ([]Line, bool) {
	out := make([]Line, 0, n)
	for i := range n {
		left, right, ok := chord(in, top-float64(i)*size, top-float64(i+1)*size)
		if !ok {
			return nil, false
		}
		first, long := words, 0.0
		for len(words) > 0 && len(words) >= n-i { // a word at least for every line that follows
			more := long + words[0].wide
			if long > 0 {
				more += space
			}
			if more*size > right-left+1e-9 {
				break
			}
			long, words = more, words[1:]
		}
		if long == 0 {
			return nil, false
		}
		line := spoken(first[:len(first)-len(words)])
		out = append(out, Line{line, geom.Vec{X: (left + right) / 2, Y: top - (float64(i)+0.5)*size}})
	}
	return out, len(words) == 0
}

// chord is the widest band between two heights that lies inside of a convex shape.
func chord(in geom.Polygon, y1, y2 float64) (left, right float64, ok bool) {
	left, right = math.Inf(-1), math.Inf(1)
	for _, y := range []float64{y1, y2} {
		lo, hi := math.Inf(1), math.Inf(-1)
		for i, a := range in {
			b := in[(i+1)%len(in)]
			if (a.Y-y)*(b.Y-y) > 1e-12 || a.Y == b.Y && math.Abs(a.Y-y) > 1e-9 {
				continue
			}
			x := []float64{a.X, b.X}
			if a.Y != b.Y {
				t := (y - a.Y) / (b.Y - a.Y)
				x = []float64{a.X + t*(b.X-a.X)}
			}
			for _, v := range x {
				lo, hi = math.Min(lo, v), math.Max(hi, v)
			}
		}
		left, right = math.Max(left, lo), math.Min(right, hi)
	}
	return left, right, right > left
}

// Inset is a convex shape with a margin taken off all round; nil when nothing is left.
func Inset(in geom.Polygon, margin float64) geom.Polygon {
	out := in
	sign := 1.0
	if in.Area() < 0 {
		sign = -1
	}
	for i, a := range in {
		b := in[(i+1)%len(in)]
		if a.Dist(b) < geom.OnPaper {
			continue
		}
		inward := b.Sub(a).Unit().Left().Scale(sign)
		line, ok := geom.LineThrough(a.Add(inward.Scale(margin)), b.Add(inward.Scale(margin)))
		if !ok || len(out) < 3 {
			return nil
		}
		pos, neg := out.Split(line)
		out = pos
		if len(pos) == 0 || len(neg) > 0 && neg.Centroid().Sub(a).Dot(inward) > pos.Centroid().Sub(a).Dot(inward) {
			out = neg
		}
		if len(out) < 3 || out.Centroid().Sub(a).Dot(inward) < margin {
			return nil
		}
	}
	if len(out) < 3 || math.Abs(out.Area()) < 1e-6 {
		return nil
	}
	return out
}
