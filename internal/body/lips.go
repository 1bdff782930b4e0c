package body

import "tussock/internal/geom"

// Lip is an edge of the finished toy that is bent: all of one part
// beyond a hinge. For pictures: no model needs the paper cut there.
type Lip struct {
	Part int       // as PartOf tells, 0 for what swings with nothing
	At   geom.Vec3 // a spot of the hinge
	Axis geom.Vec3
	Out  geom.Vec3 // square to the hinge, towards what is bent
	Rad  float64   // by the right hand about Axis
}

// Turned sets the angle of a lip, so that it moves towards a direction.
func (l Lip) Turned(deg float64, towards geom.Vec3) Lip {
	l.Rad = geom.Rad(deg)
	if l.Axis.Cross(l.Out).Dot(towards) < 0 {
		l.Rad = -l.Rad
	}
	return l
}

// Cut divides a piece at the hinge: what stays, and what is bent, where it then lies.
// Either may be empty.
func (l Lip) Cut(piece []geom.Vec3) (rest, bent []geom.Vec3) {
	beyond := func(v geom.Vec3) float64 { return v.Sub(l.At).Dot(l.Out) }
	swing := geom.Swing(l.At, l.Axis, l.Rad)
	for i, a := range piece {
		b := piece[(i+1)%len(piece)]
		da, db := beyond(a), beyond(b)
		if da <= 0 {
			rest = append(rest, a)
		} else {
			bent = append(bent, swing.Apply(a))
		}
		if (da > 0) != (db > 0) {
			m := a.Add(b.Sub(a).Scale(da / (da - db)))
			rest, bent = append(rest, m), append(bent, m)
		}
	}
	if len(rest) < 3 {
		rest = nil
	}
	if len(bent) < 3 {
		bent = nil
	}
	return rest, bent
}
