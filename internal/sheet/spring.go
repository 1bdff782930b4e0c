package sheet

import "math"

// A crease as a spring: what a fold of several layers stores and gives back. Laws are
// those of bent strips (beam theory; elastic, perfectly plastic bending).

const (
	// yieldPa is the stress at which paper in bending begins to give, N/m². A usual
	// figure for copying paper.
	yieldPa = 30e6
	// sharpLengthMM and softLengthMM are the lengths over which a sharp and a soft
	// crease bend: stiffness of the panel over stiffness of the crease. 5 to 40 mm are
	// reported; a guess that hops must judge.
	sharpLengthMM, softLengthMM = 25.0, 10.0
	sharpestMM, softestMM       = 0.1, 2.0
	// Share of the stored energy that comes back, for a soft and a sharp crease.
	softReturn, sharpReturn = 0.75, 0.50
	// alongOverAcross is the modulus along the grain over that across it (1.6 to 2.5).
	alongOverAcross = 1.9
	poissonAlong    = 0.3
	// shearOverMean is the shear modulus over the geometric mean of both.
	shearOverMean = 0.39
)

// Springback is the share of a bend that springs back when let go, for a bend of which
// u is the radius over the radius at which the paper just gives: 1.5u - 0.5u³.
func Springback(u float64) float64 {
	u = math.Max(0, math.Min(1, u))
	return 1.5*u - 0.5*u*u*u
}

// Sharpness is 1 for a crease pressed round 0.1 mm and 0 from 2 mm on.
func Sharpness(radiusMM float64) float64 {
	return math.Max(0, math.Min(1, 1-(radiusMM-sharpestMM)/(softestMM-sharpestMM)))
}

// CreaseLengthMM is the length of paper that bends in a crease pressed round a radius.
func CreaseLengthMM(radiusMM float64) float64 {
	return softLengthMM + (sharpLengthMM-softLengthMM)*Sharpness(radiusMM)
}

// CreaseReturn is the share of its energy that a crease gives back.
func CreaseReturn(radiusMM float64) float64 {
	return softReturn - (softReturn-sharpReturn)*Sharpness(radiusMM)
}

// PlasticMoment is the most that one layer bears, N·m per m of crease: stress at yield
// times t²/4.
func PlasticMoment(thicknessMM float64) float64 {
	t := thicknessMM / 1e3
	return yieldPa * t * t / 4
}

// StackFactor is how much stiffer n layers are than one. joined is how far they hold
// together: 0 lets them slide (n), 1 is glued (n³).
func StackFactor(n, joined float64) float64 { return n * (1 + joined*(n*n-1)) }

// GrainFactor is the stiffness of a crease whose line makes an angle with the grain,
// over the mean: 90 is grain across the crease (stiff), 0 along it (soft), 45 the mean
// that is taken when the grain is not known. Law of a sheet with two main directions.
func GrainFactor(deg float64) float64 { return acrossCrease(deg) / acrossCrease(45) }

// acrossCrease is the modulus in the direction that a crease bends, in units of the
// modulus across the grain.
func acrossCrease(deg float64) float64 {
	s, c := math.Sincos(math.Pi / 180 * deg)
	// The crease bends fibres that lie square to it: the angle between that direction
	// and the grain is 90° less the angle of the crease.
	a2, b2 := s*s, c*c
	along, across := alongOverAcross, 1.0
	shear := shearOverMean * math.Sqrt(along*across)
	return 1 / (a2*a2/along + b2*b2/across + a2*b2*(1/shear-2*poissonAlong/along))
}

// CreaseStiffness is the torsional stiffness of a crease of one layer, N·m/rad per m:
// bending stiffness over the length that bends.
func CreaseStiffness(c Class, thicknessMM, radiusMM float64) float64 {
	return Bending(c, thicknessMM) / (CreaseLengthMM(radiusMM) / 1e3)
}

// WithPanel is the stiffness of a crease that works through a free panel of a length
// beside it: both springs in a row.
func WithPanel(stiffness, panelMM, radiusMM float64) float64 {
	return stiffness / (1 + panelMM/(3*CreaseLengthMM(radiusMM)))
}
