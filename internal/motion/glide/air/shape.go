package air

import (
	"math"

	"tussock/internal/geom"
)

// Weight is the mass of a glider and how it lies: geometry axes, SI units.
type Weight struct {
	MassKg float64
	CoM    geom.Vec3
	// Inertia about the centre of mass, kg m²; Ixy and the like are entries of the
	// tensor, with their sign.
	Ixx, Iyy, Izz, Ixy, Ixz, Iyz float64
}

// Bends are the last bends, in rad.
type Bends struct {
	CurlRight, CurlLeft float64 // tail edge of each wing, up positive
	Twist               float64 // half the difference of the wings' twist, right nose up
	Rudder              float64 // tail of the keel, to the right
	Nose                float64 // nose, to the right
	AreaMore            float64 // part by which the right wing is larger than the mean
	Softening           bool    // bent edges give way at speed
}

// Shape is what the model needs to know of a toy beside its weight: a surface and the
// sizes that friction, the stall and the air carried along depend on.
type Shape struct {
	*Surface
	Corners []geom.Vec3 // that touch the ground or a wall first, geometry axes

	Sweep           float64 // of the leading edge, area-weighted, rad
	AreaX           float64 // centre of the wings' area
	AftX            float64 // three-quarter chord, area-weighted
	FrictionZ       float64
	frontM2         float64
	Friction        float64 // CD0 at the friction speed
	LipM2           float64
	KeelM2          float64 // keel and fins
	KeelX, keelZ    float64 // centre of their area
	LipX            float64 // centre of the curled edge
	HalfWidthFourth float64 // ∫ w⁴ dx, w the local half width
}

// NewShape measures a surface.
func NewShape(s *Surface, corners []geom.Vec3) *Shape {
	h := &Shape{Surface: s, Corners: corners}
	var fr, frz float64
	for _, q := range s.Strips {
		a, c := q.Area(), q.Chord()
		mid := (q.Left.Lead.X + q.Right.Lead.X) / 2
		z := (q.Left.Lead.Z + q.Right.Lead.Z) / 2
		re := FrictionSpeed * c / Viscosity
		cf := 2 * FrictionFactor * PlateFriction(re) * a
		fr += cf
		frz += cf * z
		if !q.Part.Wing() {
			h.KeelM2 += a
			h.KeelX += a * (mid + c/2)
			h.keelZ += a * z
			continue
		}
		dx, w := q.Right.Lead.X-q.Left.Lead.X, q.Width()
		h.Sweep += a * math.Abs(math.Atan2(dx, w))
		h.AreaX += a * (mid + c/2)
		h.AftX += a * (mid + 0.75*c)
		h.frontM2 += math.Max(1, q.Layers) * layerFrontM * w
		if q.LipM > 0 {
			lip := math.Min(q.LipM, c/2)
			h.LipM2 += lip * w
			h.LipX += lip * w * (mid + c - lip/2)
		}
	}
	h.Sweep /= s.AreaM2
	h.AreaX /= s.AreaM2
	h.AftX /= s.AreaM2
	h.FrictionZ = frz / fr
	h.Friction = fr/s.AreaM2 + BluntEdge*h.frontM2/s.AreaM2
	if h.KeelM2 > 0 {
		h.KeelX /= h.KeelM2
		h.keelZ /= h.KeelM2
	}
	if h.LipM2 > 0 {
		h.LipX /= h.LipM2
	}
	h.HalfWidthFourth = widthFourth(s.Strips, s.SpanM)
	return h
}

// Toward is a shape a part of the way to another one whose wings are set a little otherwise.
// Its surface and its corners are its own: only sizes go along.
func (h *Shape) Toward(other *Shape, part float64) *Shape {
	out, surface := *h, *h.Surface
	out.Surface = &surface
	for _, v := range [][2]*float64{{&out.SpanM, &other.SpanM}, {&out.AreaM2, &other.AreaM2}, {&out.ChordM, &other.ChordM}, {&out.Sweep, &other.Sweep}, {&out.AreaX, &other.AreaX},
		{&out.AftX, &other.AftX}, {&out.FrictionZ, &other.FrictionZ}, {&out.Friction, &other.Friction}, {&out.LipM2, &other.LipM2}, {&out.KeelM2, &other.KeelM2},
		{&out.KeelX, &other.KeelX}, {&out.LipX, &other.LipX}, {&out.HalfWidthFourth, &other.HalfWidthFourth}} {
		*v[0] += part * (*v[1] - *v[0])
	}
	return &out
}

// Toward is the weight a part of the way to another one.
func (w Weight) Toward(other Weight, part float64) Weight {
	for _, v := range [][2]*float64{{&w.MassKg, &other.MassKg}, {&w.CoM.X, &other.CoM.X}, {&w.CoM.Y, &other.CoM.Y}, {&w.CoM.Z, &other.CoM.Z},
		{&w.Ixx, &other.Ixx}, {&w.Iyy, &other.Iyy}, {&w.Izz, &other.Izz}, {&w.Ixy, &other.Ixy}, {&w.Ixz, &other.Ixz}, {&w.Iyz, &other.Iyz}} {
		*v[0] += part * (*v[1] - *v[0])
	}
	return w
}

// Heavier is the weight with all paper so many times as heavy.
func (w Weight) Heavier(times float64) Weight {
	for _, v := range []*float64{&w.MassKg, &w.Ixx, &w.Iyy, &w.Izz, &w.Ixy, &w.Ixz, &w.Iyz} {
		*v *= times
	}
	return w
}

// PlateFriction is the friction of one side of a flat plate: Blasius, with the term
// for small Reynolds numbers (Kuo, Imai).
func PlateFriction(re float64) float64 { return 1.328/math.Sqrt(re) + 4.1/re }

// widthFourth is ∫ w⁴ dx over the length: the air that turns with a rolling wing.
func widthFourth(strips []Strip, span float64) float64 {
	lo, hi := math.Inf(1), math.Inf(-1)
	for _, q := range strips {
		if q.Part.Wing() {
			lo = math.Min(lo, math.Min(q.Left.Lead.X, q.Right.Lead.X))
			hi = math.Max(hi, math.Max(q.Left.Trail.X, q.Right.Trail.X))
		}
	}
	const n = 64
	out := 0.0
	for i := range n {
		x := lo + (hi-lo)*(float64(i)+0.5)/n
		w := 0.0
		for _, q := range strips {
			if !q.Part.Wing() {
				continue
			}
			for _, e := range [2]Edge{q.Left, q.Right} {
				if x >= e.Lead.X && x <= e.Trail.X {
					w = math.Max(w, math.Abs(e.Lead.Y))
				}
			}
		}
		w = math.Min(w, span/2)
		out += w * w * w * w * (hi - lo) / n
	}
	return out
}

// AspectRatio is span squared over wing area.
func (s *Surface) AspectRatio() float64 { return s.SpanM * s.SpanM / s.AreaM2 }
