package draw

import (
	"fmt"
	"math"
	"unicode/utf8"

	"tussock/internal/geom"
	"tussock/internal/say"
	"tussock/internal/sequence/basis"
	"tussock/internal/sheet"
)

// Sizes of dimensions as parts of the toy's longer side.
const (
	sizeOff  = 0.05  // how far beside what is measured the line is drawn
	sizeTick = 0.018 // half of the ticks at its ends
	sizeTall = 0.044 // the figure
	nearSign = 0.02  // two places so near get one sign
)

// basis puts a sign on everything that places the step, and writes what is measured.
func (k *sketch) basis() {
	signed := func(p geom.Vec) bool {
		q := xy(k.at(p))
		for _, s := range k.o.Signs {
			if math.Hypot(s.At[0]-q[0], s.At[1]-q[1]) < nearSign*k.size {
				return true
			}
		}
		return false
	}
	for _, q := range k.d.Refs {
		switch q.Kind {
		case basis.Point:
			if !signed(q.At) {
				k.sign("place", q.At)
			}
		case basis.Line:
			k.along(q)
		case basis.Length:
			k.length(q)
		case basis.AnAngle:
			k.angle(q)
		}
	}
}

// along shows a line that places the step, unless the step folds along it or it is marked.
func (k *sketch) along(q basis.Ref) {
	for _, m := range k.d.Meets {
		if m.Line && m.Along.Mid().Dist(q.Along.Mid()) < geom.OnPaper {
			return
		}
	}
	if l := k.d.Line; l.N.Len() > 0 && math.Abs(l.Side(q.Along.A)) < geom.OnPaper && math.Abs(l.Side(q.Along.B)) < geom.OnPaper {
		return
	}
	k.stroke("meet", q.Along)
}

// length draws a dimension beside what is measured, away from the middle of the toy.
func (k *sketch) length(q basis.Ref) {
	f := k.top(q.Along.Mid())
	a, b := k.lay.put(f, q.Along.A), k.lay.put(f, q.Along.B)
	dir := b.Sub(a).Unit()
	n := dir.Left()
	if n.Dot(geom.Mid(a, b).Sub(k.box.Centre())) < 0 {
		n = n.Scale(-1)
	}
	off, tick := n.Scale(k.clear(a, b, n)), n.Scale(sizeTick*k.size)
	u, v := a.Add(off), b.Add(off)
	s := Size{Text: say.MM(q.Value, 1), Part: partOf(q.Value, k.d.Before.Sheet), TallMM: round(sizeTall * k.size), Lines: flatPoints(u, v, u.Sub(off), u.Add(tick), v.Sub(off), v.Add(tick))}
	s.place(geom.Mid(u, v), dir, n, k.size)
	k.o.Sizes = append(k.o.Sizes, s)
}

// Of the sheet's sides a part with so small a denominator and so near is a simple one.
const (
	mostParts = 16
	nearPart  = 0.25 // mm
)

// partOf is a length as a simple part of the sheet's width or height; "" when it is none.
func partOf(mm float64, s sheet.Sheet) string {
	for d := 2; d <= mostParts; d++ {
		for _, side := range []struct {
			mm   float64
			name string
		}{{s.WidthMM, "width"}, {s.HeightMM, "height"}} {
			n := math.Round(mm / side.mm * float64(d))
			if n >= 1 && n < float64(d) && math.Abs(n*side.mm/float64(d)-mm) < nearPart {
				return fmt.Sprintf("%.0f/%d of the %s", n, d, side.name)
			}
		}
	}
	return ""
}

// clear is how far beside what is measured a dimension is drawn, so that it keeps off those
// drawn already.
func (k *sketch) clear(a, b, n geom.Vec) float64 {
	off := sizeOff * k.size
	for _, s := range k.o.Sizes {
		if len(s.Lines) < 4 {
			continue
		}
		p, q := geom.Vec{X: s.Lines[0], Y: -s.Lines[1]}, geom.Vec{X: s.Lines[2], Y: -s.Lines[3]}
		along := q.Sub(p).Unit()
		if math.Abs(along.Dot(n)) > 0.1 || math.Abs(n.Dot(p.Sub(a))-off) > 1.5*sizeTall*k.size {
			continue // not side by side
		}
		lo, hi := math.Min(along.Dot(p), along.Dot(q)), math.Max(along.Dot(p), along.Dot(q))
		room := sizeTall * 2 * k.size // that a figure takes
		if math.Max(along.Dot(a), along.Dot(b)) > lo-room && math.Min(along.Dot(a), along.Dot(b)) < hi+room {
			off += 1.7 * sizeTall * k.size
		}
	}
	return off
}

// place puts the figure beside its line, on the side of n, so that it can be read.
func (s *Size) place(mid, dir, n geom.Vec, size float64) {
	deg := geom.Deg(math.Atan2(-dir.Y, dir.X))
	switch { // never upside down
	case deg > 90.5:
		deg -= 180
	case deg <= -89.5:
		deg += 180
	}
	s.TurnDeg = round(deg)
	s.At = xy(mid.Add(n.Scale(0.75 * sizeTall * size)))
}

// arcParts is how many straight parts an arc is drawn by.
const arcParts = 8

// angle draws an arc with its figure.
func (k *sketch) angle(q basis.Ref) {
	c, u, v := k.at(q.At), q.Along.A.Sub(q.At), q.Along.B.Sub(q.At)
	from := math.Atan2(u.Y, u.X)
	by := math.Atan2(u.Cross(v), u.Dot(v))
	at := func(t float64) geom.Vec {
		a := from + t*by
		return c.Add(geom.Vec{X: math.Cos(a), Y: math.Sin(a)}.Scale(u.Len()))
	}
	s := Size{Text: say.Value(q.Value, "deg", 1), TallMM: round(sizeTall * k.size)}
	for i := range arcParts {
		s.Lines = append(s.Lines, flatPoints(at(float64(i)/arcParts), at(float64(i+1)/arcParts))...)
	}
	s.Lines = append(s.Lines, flatPoints(c, at(0), c, at(1))...)
	out := at(0.5).Sub(c).Unit()
	s.At = xy(at(0.5).Add(out.Scale(0.9 * sizeTall * k.size)))
	k.o.Sizes = append(k.o.Sizes, s)
}

// wideText is how wide a letter of a figure is, as a part of its height, on average.
const wideText = 0.56

// around are the corners of the figure as it is drawn.
func (s Size) around() []float64 {
	n := utf8.RuneCountInString(say.Plain(s.Text))
	half := geom.Vec{X: wideText * s.TallMM * float64(n) / 2, Y: 0.6 * s.TallMM}
	turn := geom.Rotation(geom.Rad(s.TurnDeg), geom.Vec{})
	var out []float64
	for _, c := range []geom.Vec{half, {X: half.X, Y: -half.Y}, half.Scale(-1), {X: -half.X, Y: half.Y}} {
		c = turn.Apply(c)
		out = append(out, round(s.At[0]+c.X), round(s.At[1]+c.Y))
	}
	return out
}
