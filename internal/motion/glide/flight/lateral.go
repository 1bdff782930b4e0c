package flight

import (
	"math"
	"math/cmplx"

	"gonum.org/v1/gonum/mat"

	"tussock/internal/geom"
	"tussock/internal/motion"
	"tussock/internal/motion/glide/air"
)

// Lateral is how a glider behaves sideways in its steady glide.
type Lateral struct {
	// YawStiff is Cnb cos a - (Iz/Ix) Clb sin a at the trim: above 0 the nose goes back into
	// the wind.
	YawStiff float64
	// WobblePeriodS and WobbleDamping (of the critical; below 0 it grows) belong to the
	// Dutch roll; a period of 0 means there is none.
	WobblePeriodS, WobbleDamping float64
	// TurnS is how long a turn takes to double (above 0) or to halve (below 0).
	TurnS float64
	RollS float64 // time constant of a roll
}

// Sideways linearises the flight about a trim: the eigenvalues of the 4 x 4 matrix of
// sideslip, roll, yaw and bank.
func (m *Model) Sideways(t Trim) Lateral {
	a := geom.Rad(t.AttackDeg)
	out := Lateral{YawStiff: m.yawStiff(t.SpeedMS, a)}
	// The path slopes down by arctan(1/ratio); bends from side to side are left out.
	pitch := a - math.Atan2(1, t.Ratio)
	even := *m
	even.cy0, even.cl0, even.cn0 = 0, 0, 0
	at := func(i int, h float64) state {
		var s state
		s[3], s[5] = t.SpeedMS*math.Cos(a), t.SpeedMS*math.Sin(a)
		bank := 0.0
		switch i {
		case 0:
			s[4] = h
		case 1:
			s[10] = h
		case 2:
			s[12] = h
		case 3:
			bank = h
		}
		sb, cb := math.Sincos(bank / 2)
		sp, cp := math.Sincos(pitch / 2)
		s[6], s[7], s[8], s[9] = cb*cp, sb*cp, cb*sp, -sb*sp
		return even.change(&s, false)
	}
	const h = 1e-4
	jac := mat.NewDense(4, 4, nil)
	for j := range 4 {
		hi, lo := at(j, h), at(j, -h)
		for i, k := range []int{4, 10, 12} {
			jac.Set(i, j, (hi[k]-lo[k])/(2*h))
		}
	}
	jac.Set(3, 1, 1)
	jac.Set(3, 2, math.Tan(pitch))
	var e mat.Eigen
	if !e.Factorize(jac, mat.EigenNone) {
		return out
	}
	slowest := math.Inf(1)
	for _, v := range e.Values(nil) {
		switch {
		case imag(v) > 1e-6 && imag(v) > 0:
			if n := cmplx.Abs(v); out.WobblePeriodS == 0 || 2*math.Pi/imag(v) < out.WobblePeriodS {
				out.WobblePeriodS, out.WobbleDamping = 2*math.Pi/imag(v), -real(v)/n
			}
		case imag(v) == 0 && math.Abs(real(v)) < slowest:
			slowest = math.Abs(real(v))
			out.TurnS = math.Ln2 / real(v)
		}
		if imag(v) == 0 && real(v) < 0 && (out.RollS == 0 || -1/real(v) < out.RollS) {
			out.RollS = -1 / real(v)
		}
	}
	return out
}

// yawStiff is told by the forces that the flight itself has at an angle of attack: what the
// wings carry there changes how they roll and turn it in a slip.
func (m *Model) yawStiff(v, a float64) float64 {
	const h = 1e-3
	per := air.AirDensity * v * v / 2 * m.s * m.b * 2 * h
	u, w := v*math.Cos(a), v*math.Sin(a)
	_, hi := m.Air(u, v*h, w, 0, 0, 0)
	_, lo := m.Air(u, -v*h, w, 0, 0, 0)
	return (hi.z-lo.z)/per*math.Cos(a) - m.Weight.Izz/m.Weight.Ixx*(hi.x-lo.x)/per*math.Sin(a)
}

// edgeDraws is how many toys, with what is not known drawn anew, are thrown to see which way
// unlike tail edges turn them; edgeDeg by how much the right one then stands higher.
const edgeDraws, edgeDeg = 16, 2.0

// EdgeTurn is by how many degrees to the right a metre of its glide turns it when the right
// tail edge stands 1° higher than the left, and where eight of ten lie as what is not known
// goes: the flight itself tells, let go in its trim.
func (m *Model) EdgeTurn() (now float64, band motion.Range) {
	turn := func(n *Model) (float64, bool) {
		trims := n.Trims()
		if len(trims) == 0 {
			return 0, false
		}
		t := trims[0]
		let := Throw{SpeedMS: t.SpeedMS, AngleDeg: -geom.Deg(math.Atan2(1, t.Ratio)), NoseDeg: t.AttackDeg, HeightM: 1.6}
		by := [2]float64{}
		for i, s := range []float64{1, -1} {
			b := n.Bends
			b.CurlRight += s * geom.Rad(edgeDeg) / 2
			b.CurlLeft -= s * geom.Rad(edgeDeg) / 2
			q := newModel(n.Shape, n.Weight, n.plain, b, n.doubt)
			f := q.Fly(let, Room{}, nil)
			by[i] = f.HeadingDeg / math.Max(f.DistanceM, 0.1)
		}
		return (by[0] - by[1]) / (2 * edgeDeg), true
	}
	now, _ = turn(m)
	toys := m.Many()
	var all []float64
	for i := range edgeDraws {
		if v, ok := turn(toys.Of(Scatter{Constants: true}.Draw(i, Throw{}, m.Bends))); ok {
			all = append(all, v)
		}
	}
	return now, motion.RangeOf(all)
}
