package teller

import (
	"math"

	"tussock/internal/geom"
)

// Opened is a teller opened one way by an angle, rigid panels and points held together in
// pairs: cos γ · cos η = cos 45°, by the cosine rule of right spherical triangles.
type Opened struct {
	Gamma float64 // half the angle between the two pairs of points, 0 shut to 45° full
	Eta   float64 // of the two middles of sides that spread, from the axis
}

// Full is how far each pair goes until the spread middles meet again.
const Full = math.Pi / 4

// Open it by γ, 0 to Full.
func Open(gamma float64) Opened {
	return Opened{gamma, math.Acos(math.Min(1, math.Cos(math.Pi/4)/math.Cos(gamma)))}
}

// TipGapMM is how far the two pairs of points are apart, of a sheet of a side.
func (o Opened) TipGapMM(side float64) float64 { return side / math.Sqrt2 * math.Sin(o.Gamma) }

// MidGapMM is how far the two spread middles are apart.
func (o Opened) MidGapMM(side float64) float64 { return side / 2 * math.Sin(o.Eta) }

// AlikeRad is the opening at which points and middles are spread alike.
func AlikeRad() float64 { return math.Acos(math.Sqrt(math.Cos(math.Pi / 4))) }

// Dihedrals are the angles between panels, degrees: δ at the diagonals of points, n at the
// half lines of the number side that spread, χ at the rims of pockets. A flat teller has 180
// everywhere.
type Dihedrals struct{ Delta, N, Chi float64 }

// Dihedrals of an opening, by the rules of spherical triangles of sides of 45°.
func (o Opened) Dihedrals() Dihedrals {
	p := o.Corners(4)
	axis := func(along, a, b geom.Vec3) float64 {
		u := along.Unit()
		x, y := a.Sub(u.Scale(u.Dot(a))), b.Sub(u.Scale(u.Dot(b)))
		return geom.Deg(math.Atan2(x.Cross(y).Len(), x.Dot(y)))
	}
	d := Dihedrals{Delta: axis(p.Tip[0], p.Mid[0], p.Mid[1]), N: axis(p.Mid[1], p.Tip[0], p.Tip[1])}
	d.Chi = 2 * geom.Deg(math.Atan2(math.Sqrt2, math.Tan(geom.Rad(d.Delta)/2)))
	return d
}

// Corners are where the corners of panels stand, mm: the middle of the number side at the
// origin, points upward. Tip and Mid run counter-clockwise seen from above, tips from the
// upper right, middles from the right, so that Tip[i] stands between Mid[i] and Mid[i+1];
// Flap[i] is the sheet's corner in the panel of Tip[i].
type Corners struct {
	Tip, Mid, Flap [4]geom.Vec3
}

// Corners of a teller folded from a square of a side, opened to the left and right.
func (o Opened) Corners(side float64) Corners {
	var c Corners
	sg, cg := math.Sincos(o.Gamma)
	se, ce := math.Sincos(o.Eta)
	ss, cs := math.Sincos(o.Gamma + math.Pi/4) // of the middles between the points of a pair
	long, short := side/4*math.Sqrt2, side/4
	for i, x := range []float64{1, -1, -1, 1} {
		c.Tip[i] = geom.Vec3{X: x * sg, Z: cg}.Scale(long)
	}
	c.Mid = [4]geom.Vec3{geom.Vec3{X: ss, Z: cs}.Scale(short), geom.Vec3{Y: se, Z: ce}.Scale(short), geom.Vec3{X: -ss, Z: cs}.Scale(short), geom.Vec3{Y: -se, Z: ce}.Scale(short)}
	for i := range c.Tip {
		// The outer panel is the mirror image of the number side beyond its rims.
		a, b := c.Mid[i].Sub(c.Tip[i]), c.Mid[(i+1)%4].Sub(c.Tip[i])
		n := a.Cross(b).Unit()
		v := c.Tip[i].Scale(-1)
		c.Flap[i] = c.Tip[i].Add(v.Sub(n.Scale(2 * n.Dot(v))))
	}
	return c
}
