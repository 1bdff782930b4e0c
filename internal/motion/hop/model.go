package hop

import (
	"math"

	"tussock/internal/geom"
	"tussock/internal/sheet"
)

const mm = 1e-3

// springs are both creases of a geometry, pressed as a set says. joined is how far the
// layers hold together.
func (g Geometry) springs(s SpringSet, joined float64) (hip, catch Crease) {
	n := math.Max(1, g.LayersMean)
	grain := sheet.GrainFactor(s.GrainDeg)
	t := g.Sheet.ThicknessMM
	of := func(radius float64) Crease {
		rest := sheet.RestOpening(max(1, int(math.Round(n))), t, radius)
		if s.OpeningDeg > 0 {
			rest = s.OpeningDeg
		}
		k := sheet.WithPanel(sheet.CreaseStiffness(sheet.Ordinary, t, radius), g.MiddleMM, radius)
		return Crease{Stiffness: sheet.StackFactor(n, joined) * k * g.WidthMM * mm * grain, Rest: geom.Rad(math.Min(rest, 175)),
			Most: n * g.WidthMM * mm * sheet.PlasticMoment(t), Return: sheet.CreaseReturn(radius)}
	}
	return of(s.HipRadiusMM), of(s.CatchRadiusMM)
}

// toy is what the leap depends on.
func (g Geometry) toy(s SpringSet) Toy {
	t := Toy{MassKg: g.MassG * 1e-3, BodyShare: g.BodyShare, BodyM: g.BodyMM * mm, CoMAhead: g.CoMMM * mm, CoMUp: g.CoMUpMM * mm, Gyration: g.GyrationMM * mm,
		MiddleM: g.MiddleMM * mm, FootM: g.FootMM * mm, WidthM: g.WidthMM * mm, PlanM2: g.PlanMM2 * 1e-6, NoseUpM: s.NoseUpMM * mm,
		Layers: g.LayersMean, ThickM: g.Sheet.ThicknessMM * mm, Backward: g.Backward}
	if s.NoseUpMM == 0 {
		t.NoseUpM = g.NoseUpMM * mm
	}
	t.Hip, t.Catch = g.springs(s, joinedShare)
	return t
}

// Stance is how a toy stands before it is pressed.
type Stance struct {
	HipMM    float64 // height of the hip
	PitchDeg float64 // of the body, nose down positive
	PressMM  float64 // how far the finger's place lies inside of the feet; outside negative
	TipMM    float64 // how far the centre of mass lies inside of the feet
}

// stance is how it stands, and whether it tips.
func (g Geometry) stance(t Toy, pressAheadMM float64) Stance {
	open, pitch := t.Rest()
	out := Stance{HipMM: t.MiddleM * math.Sin(open) / mm, PitchDeg: -geom.Deg(pitch)}
	hull := g.hull()
	out.PressMM = inside(hull, g.at(pressAheadMM))
	out.TipMM = inside(hull, g.at(g.WholeCoMMM))
	return out
}

// hull is the polygon of what touches the table.
func (g Geometry) hull() geom.Polygon {
	var pts []geom.Vec
	for _, c := range g.Contact {
		pts = append(pts, geom.Vec{X: c.X, Y: c.Y})
	}
	return geom.Hull(pts)
}

// inside is how far a point lies within a hull; outside is negative.
func inside(p geom.Polygon, at geom.Vec) float64 {
	least := math.Inf(1)
	for i := range p {
		a, b := p[i], p[(i+1)%len(p)]
		if l := b.Sub(a).Len(); l > 1e-9 {
			least = math.Min(least, b.Sub(a).Cross(at.Sub(a))/l)
		}
	}
	if math.IsInf(least, 1) {
		return 0
	}
	return least
}

// at is a place on the middle line, ahead of the hip.
func (g Geometry) at(aheadMM float64) geom.Vec { return geom.Vec{X: aheadMM} }

func clamp(v, lo, hi float64) float64 { return math.Max(lo, math.Min(hi, v)) }
