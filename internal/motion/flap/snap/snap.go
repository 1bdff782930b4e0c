// Package snap is what makes a wrapped flapper snap: a short crease that ends inside the
// sheet, and wing roots that are rolled round a finger.
//
// In words: a crease that stops in the middle of the paper leaves a cone that is happy in two
// shapes; pressed, it jumps from one to the other and the wings go along. The rolled root
// has to be flattened before it folds, and that is what fingers feel.
//
// Angles in radians, lengths in m, moments in N m. The cone is that of a sheet that does not
// stretch, for small slopes; magnitudes are good to a factor of three, which of two set-ups
// is stiffer is right.
package snap

import (
	"fmt"
	"math"
)

// Shape is one of the two shapes of a sheet with one crease from its middle outwards, for a
// fold of 1: heights over the flat sheet are told at a distance of 1 from its end.
type Shape struct {
	Mode   float64 // how often it goes up and down on its way round; of the snapped one the rate of its growth
	Energy float64 // over fold², bending stiffness and the logarithm of sheet over core
	Wings  float64 // height at a right angle to the crease
	Ridge  float64 // of the line through the crease and behind it: the sum of both ends
	rest   bool
}

// Rest and Snapped are the two shapes: solutions z = C cos ωs and z = C cosh νs of the cone
// that keep the way round it as long as it was, (ω² - 1) π = (ω² + 1) sin(2πω) / 2ω and the
// same with ω = iν.
var Rest, Snapped = shape(true), shape(false)

// CoreM is what the crease's end leaves of the cone, m: paper bends no sharper there.
const CoreM = 2e-3

func shape(rest bool) Shape {
	f := func(w float64) float64 {
		if rest {
			return (w*w-1)*math.Pi - (w*w+1)*math.Sin(2*math.Pi*w)/(2*w)
		}
		return (w*w+1)*math.Pi - (w*w-1)*math.Sinh(2*math.Pi*w)/(2*w)
	}
	lo, hi := 0.8, 0.99
	if !rest {
		lo, hi = 1.001, 1.2
	}
	for range 80 {
		if m := (lo + hi) / 2; f(lo)*f(m) <= 0 {
			hi = m
		} else {
			lo = m
		}
	}
	w := (lo + hi) / 2
	if rest {
		c := 1 / (2 * w * math.Sin(w*math.Pi))
		e := c * c * (1 - w*w) * (1 - w*w) * (math.Pi + math.Sin(2*math.Pi*w)/(2*w)) / 2
		return Shape{w, e, c * math.Cos(w*math.Pi/2), c * (1 + math.Cos(w*math.Pi)), true}
	}
	c := -1 / (2 * w * math.Sinh(w*math.Pi))
	e := c * c * (1 + w*w) * (1 + w*w) * (math.Pi + math.Sinh(2*math.Pi*w)/(2*w)) / 2
	return Shape{w, e, c * math.Cosh(w*math.Pi/2), c * (1 + math.Cosh(w*math.Pi)), false}
}

// At is the height of a shape over the flat sheet, for a fold of 1 and at a distance of 1,
// at an angle from the side that lies opposite to the crease.
func (s Shape) At(angle float64) float64 {
	if s.rest {
		return math.Cos(s.Mode*angle) / (2 * s.Mode * math.Sin(s.Mode*math.Pi))
	}
	return -math.Cosh(s.Mode*angle) / (2 * s.Mode * math.Sinh(s.Mode*math.Pi))
}

// Joules is what a shape stores: stiffness b (N m per m), a crease folded by psi in a sheet
// that reaches so far from the crease's end.
func (s Shape) Joules(b, psi, reachM float64) float64 {
	return s.Energy * psi * psi * b * math.Log(math.Max(1, reachM/CoreM))
}

// Swing is how far each wing goes from rest to snapped, radians of slope, for a fold of psi.
func Swing(psi float64) float64 { return (Rest.Wings - Snapped.Wings) * psi }

// poisson is that of paper in bending, about.
const poisson = 0.3

// What the peak is over the steady moment of a tape spring; measured ones lie between.
const PeakLeast, PeakMost = 1.5, 4.0

// Root is a wing's root rolled on a finger: how wide it is along the roll, and the radius.
type Root struct{ WidthM, RadiusM float64 }

// Arc is the angle of its roll, radians. From about half a radian on it has two rests.
func (r Root) Arc() float64 { return r.WidthM / r.RadiusM }

// TwoRests tells whether the root stays where it was put.
func (r Root) TwoRests() bool { return r.Arc() >= leastArc }

const leastArc = 0.5

// Moment is the steady moment that folds the root, N m, against the sense of its roll or with
// it: M* = (1 ± ν) B a, the law of tape springs.
func (r Root) Moment(b float64, against bool) float64 {
	if against {
		return (1 + poisson) * b * r.Arc()
	}
	return (1 - poisson) * b * r.Arc()
}

// Gap is what must be left free at the centre, m, so that n layers round a fold lie closed
// without strain: half a turn about their middle.
func Gap(layers int, thicknessM float64) float64 {
	return math.Pi * float64(layers) * thicknessM / 2
}

// AlignM is how exactly the edges at the centre are laid, m.
const AlignM = 0.3e-3

// Strain is that of a crease of a length where the gap is too small, as a part; 0 where it
// is not.
func Strain(layers int, thicknessM, gapM, creaseM float64) float64 {
	return math.Max(0, Gap(layers, thicknessM)-gapM) / creaseM
}

// Strains at which paper tears, along the grain and across it.
const TearsAlong, TearsAcross = 0.02, 0.04

// Tube is the way round a finger of a diameter that a tube of n layers must have to grip,
// m: from and to.
func Tube(fingerM float64, layers int, thicknessM float64) (from, to float64, err error) {
	if !(fingerM >= leastFingerM && fingerM <= mostFingerM) {
		return 0, 0, fmt.Errorf("a finger is %.0f to %.0f mm thick, not %.1f", 1e3*leastFingerM, 1e3*mostFingerM, 1e3*fingerM)
	}
	round := math.Pi * (fingerM + 2*float64(layers)*thicknessM)
	return round, round + slackM, nil
}

// Fingers, from a small child's to a large hand's, and what a tube may be too wide by.
const leastFingerM, mostFingerM, slackM = 8e-3, 26e-3, 2e-3
