package flight

import (
	"math"
	"sync"

	"tussock/internal/geom"
	"tussock/internal/motion/glide/air"
)

// cells is the size of the tables over the angle of attack: about 0.45° near 0.
const cells = 512

// cell is what a wing has at an angle of attack, over q S: normal and axial force and
// pitching moment of the flat wing, and what its curled edges add.
type cell struct{ cn, ca, cm, cnCurl, cmCurl float64 }

// table is a polar over the full turn, looked up by the diamond angle of the flow, so
// that a flight needs no trigonometry.
type table [cells + 1]cell

// polar holds the numbers a table is made from.
type polar struct {
	kp, kv, ks   float64 // potential, vortex and suction factors
	kept         float64 // part of the suction that is kept
	stall, width float64 // rad
	cd0          float64
	np, area     float64 // over the chord, behind the centre of mass
	travel       float64 // of the centre of pressure from one to the other, a part
	aft          float64 // the same of the three-quarter chord: lift of a wing that flies backwards
	arStar       float64
	cnd, cmd     float64 // of curl, per rad
	curl         float64 // effective, rad
	lipShare     float64 // area of the lips over S
	lipArm       float64 // over the chord, behind the centre of mass
	frictionUp   float64 // friction acts so high above the centre of mass, over the chord
}

// polarOf follows the suction analogy (Polhamus) at small angles, blended at the stall
// into a plate with separated flow.
func polarOf(h *air.Shape, d air.Derivatives, com float64, comZ float64, curl float64) polar {
	ar := h.AspectRatio()
	p := polar{kp: d.CNa, ks: d.CNa - d.CNa*d.CNa*d.Ki, kept: air.SuctionKept, travel: air.AreaTravel, cd0: h.Friction, arStar: math.Max(ar, 1/ar),
		cnd: d.CNd, cmd: d.Cmd, lipShare: h.LipM2 / h.AreaM2,
		np: (d.NeutralM - com) / h.ChordM, area: (h.AreaX - com) / h.ChordM, aft: (h.AftX - com) / h.ChordM,
		lipArm: (h.LipX - com) / h.ChordM, frictionUp: (h.FrictionZ - comZ) / h.ChordM}
	s := smooth(geom.Rad(30), geom.Rad(60), h.Sweep)
	p.kv = s*math.Min(math.Pi, p.ks/math.Cos(h.Sweep)) + (1-s)*3.0/(1+0.4*ar*ar)
	p.stall = geom.Rad(math.Max(12+29*math.Exp(-math.Pow(ar/1.7, 2.5)), 10+27*clamp((geom.Deg(h.Sweep)-20)/50, 0, 1)))
	p.width = geom.Rad(3)
	p.curl = air.CurlEfficiency * air.CurlSpan * math.Tanh(curl/air.CurlSpan)
	return p
}

// direction is one of the directions that a table is made for. The angle is folded to
// 0 to 90°: forwards and backwards are plates alike.
type direction struct{ sin, cos, small float64 }

var directions = sync.OnceValue(func() *[cells + 1]direction {
	var out [cells + 1]direction
	for i := range out {
		a := angleOf(-2 + 4*float64(i)/cells)
		d := direction{small: math.Abs(a)}
		d.sin, d.cos = math.Sincos(a)
		if d.cos < 0 {
			d.small = math.Pi - d.small
		}
		out[i] = d
	}
	return &out
})

// at is the cell of a direction. wide is 0.41 (1 - exp(-17 / AR*)) of separated flow.
func (p *polar) at(d direction, wide, lip float64) cell {
	sin, cos, small := d.sin, d.cos, d.small
	back := cos < 0
	kv, stall, np := p.kv, p.stall, p.np
	if back {
		kv, stall, np = p.kv/2, geom.Rad(12), p.aft
	}
	gone := 0.0
	switch x := (small - stall) / p.width; {
	case x > 30:
		gone = 1
	case x > -30:
		gone = 1 / (1 + math.Exp(-x))
	}
	abs := math.Abs(sin)
	attached := p.kp*sin*math.Abs(cos) + kv*abs*sin
	c := cell{cn: (1-gone)*attached + gone*1.98*(1/(0.56+0.44*abs)-wide)*sin}
	c.ca = p.cd0 * cos * math.Abs(cos)
	if !back {
		c.ca -= p.kept * p.ks * sin * sin * (1 - gone)
	}
	c.ca += 1.5 * p.lipShare * lip * lip * cos * math.Abs(cos)
	cp := np + p.travel*(p.area-np)*abs
	c.cm = -cp*c.cn + p.cd0*cos*math.Abs(cos)*p.frictionUp
	if !back {
		f := cos * cos * (1 - 0.65*gone)
		c.cnCurl, c.cmCurl = p.cnd*p.curl*f, p.cmd*p.curl*f
	} else {
		c.cnCurl = 0.3 * math.Abs(p.cnd) * p.curl * cos * cos
		c.cmCurl = -p.lipArm * c.cnCurl
	}
	return c
}

func (p *polar) table() *table {
	var t table
	wide, lip := 0.41*(1-math.Exp(-17/p.arStar)), math.Sin(p.curl)
	for i, d := range directions() {
		t[i] = p.at(d, wide, lip)
	}
	return &t
}

// diamond maps a direction to -2 … 2, without trigonometry: 0 is straight ahead, 1
// straight from below.
func diamond(x, y float64) float64 {
	n := math.Abs(x) + math.Abs(y)
	if n == 0 {
		return 0
	}
	t := y / n
	if x < 0 {
		if y >= 0 {
			return 2 - t
		}
		return -2 - t
	}
	return t
}

// angleOf is the angle, rad, of a diamond angle.
func angleOf(t float64) float64 {
	switch {
	case t > 1:
		return math.Atan2(2-t, 1-t)
	case t < -1:
		return math.Atan2(-2-t, 1+t)
	}
	return math.Atan2(t, 1-math.Abs(t))
}

// look reads the table at the flow u from ahead, w from below.
func (t *table) look(u, w float64) cell {
	x := (diamond(u, w) + 2) * (cells / 4)
	i := min(max(int(x), 0), cells-1)
	f := x - float64(i)
	a, b := &t[i], &t[i+1]
	return cell{a.cn + f*(b.cn-a.cn), a.ca + f*(b.ca-a.ca), a.cm + f*(b.cm-a.cm), a.cnCurl + f*(b.cnCurl-a.cnCurl), a.cmCurl + f*(b.cmCurl-a.cmCurl)}
}

// clamp keeps a number within bounds. It is asked some twenty times a step of a flight,
// so it does not go through the functions that mind NaN.
func clamp(v, lo, hi float64) float64 {
	if v < lo {
		return lo
	}
	if v > hi {
		return hi
	}
	return v
}

// smooth goes from 0 at lo to 1 at hi with level ends.
func smooth(lo, hi, v float64) float64 {
	t := clamp((v-lo)/(hi-lo), 0, 1)
	return t * t * (3 - 2*t)
}
