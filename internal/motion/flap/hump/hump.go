// Package hump is the linkage of a bird whose tail is pulled: a hump of paper where neck,
// tail and both wing roots meet opens, and the wings go down.
//
// In words: the ridges of neck and tail open away from each other, the four sectors of
// paper between them and the wing roots keep their shape, so each wing root has to lie
// further out; how far is spherical trigonometry and nothing else.
//
// Angles in radians, lengths in m. The law is exact for rigid sectors, the same to left and
// right, fore and aft.
package hump

import (
	"math"

	"tussock/internal/motion/glide/air"
)

// Vertex is the hump: Sigma half the angle of a wing's sector there, Sector that between a
// ridge and the wing's sector.
type Vertex struct{ Sigma, Sector float64 }

// Square is the vertex of a bird folded from a square.
var Square = Vertex{math.Pi / 4, math.Pi / 4}

// Wing is how far the wing roots lie out to the sides when each ridge stands phi from where
// both are shut; ok is false where paper cannot reach. Law of cosines of the sphere, solved
// for the dihedral: cos λ = (cos g - sin σ sin φ) / (cos σ cos φ).
func (v Vertex) Wing(phi float64) (lam float64, ok bool) {
	c := (math.Cos(v.Sector) - math.Sin(v.Sigma)*math.Sin(phi)) / (math.Cos(v.Sigma) * math.Cos(phi))
	if math.IsNaN(c) || c < -1-1e-12 || c > 1+1e-12 {
		return 0, false
	}
	return math.Acos(math.Max(-1, math.Min(1, c))), true
}

// Slope is how far the wings move for a little more of phi, dλ/dφ. It is without bound where
// the hump is shut and a half where it lies flat.
func (v Vertex) Slope(phi float64) (float64, bool) {
	lam, ok := v.Wing(phi)
	if !ok || math.Sin(lam) < 1e-9 {
		return 0, false
	}
	c := math.Cos(phi)
	d := (math.Cos(v.Sector)*math.Sin(phi) - math.Sin(v.Sigma)) / (math.Cos(v.Sigma) * c * c)
	return -d / math.Sin(lam), true
}

// Opened is phi after the tail has been pulled from phi0, the neck held: the pull moves the
// tail by 2 r Δφ at an arm r from the hump.
func Opened(phi0, pullM, armM float64) float64 { return phi0 + pullM/(2*armM) }

// Tip is how far a wing's tip travels, m, when its root goes from one angle to another: the
// chord of a wing that keeps its shape.
func Tip(wingM, from, to float64) float64 { return 2 * wingM * math.Sin(math.Abs(to-from)/2) }

// Shut is the least phi that thickness allows: layers of thickness t at the wing's root keep
// it open by λ = n t / w, and near shut φ = λ²/2.
func Shut(layers int, thicknessM, rootM float64) float64 {
	lam := float64(layers) * thicknessM / rootM
	return lam * lam / 2
}

// Advantage is the force at the tail over that at a wing's tip: (Lw / 2r) dλ/dφ.
func (v Vertex) Advantage(phi, wingM, armM float64) (float64, bool) {
	s, ok := v.Slope(phi)
	return wingM / (2 * armM) * s, ok
}

// Flat4 are the folds of a vertex of four creases that folds flat, sectors α, β, π-α, π-β,
// crease i before sector i, when its first crease is folded by rho. There are two ways: with
// the second and fourth alike, or opposed. Law of flat-foldable vertices of degree four.
func Flat4(alpha, beta, rho float64, opposed bool) [4]float64 {
	t := math.Tan(rho / 2)
	if opposed {
		r := 2 * math.Atan(-math.Cos((alpha+beta)/2)/math.Cos((alpha-beta)/2)*t)
		return [4]float64{rho, r, rho, -r}
	}
	r := 2 * math.Atan(math.Sin((alpha+beta)/2)/math.Sin((alpha-beta)/2)*t)
	return [4]float64{rho, r, -rho, r}
}

// Frequency is that of a wing's own beat, Hz: a strip clamped at its root, bending stiffness
// b (N m per m of width), mass m (kg/m²), length l. Euler's beam, 3.516/(2π) = 0.56.
func Frequency(b, m, l float64) float64 { return 3.516 / (2 * math.Pi) * math.Sqrt(b/(m*l*l*l*l)) }

// Droop is how far the tip of such a wing hangs by its own weight, m: m g l⁴ / 8 b.
func Droop(b, m, l float64) float64 { return m * air.Gravity * l * l * l * l / (8 * b) }

// Gain is how much further a tip goes than a rigid one when it is beaten at a frequency:
// 1 / (1 - (f/f₁)²), told up to 0.6 of its own beat; ok is false beyond.
func Gain(f, own float64) (float64, bool) {
	r := f / own
	return 1 / (1 - r*r), r < 0.6
}
