package glide

import (
	"fmt"
	"math"

	"tussock/internal/geom"
	"tussock/internal/motion"
	"tussock/internal/motion/glide/air"

	"tussock/internal/motion/glide/flight"
)

// doubtSamples is how many draws of what is not known a band of a trim rests on.
const doubtSamples = 48

// Readings are the numbers of a glider, each with its band, what is usual, what it means
// and what moves it.
func readingsOf(m *flight.Model) []motion.Reading {
	d, h, w := m.D, m.Shape, m.Weight
	exact := func(id, label, unit string, v float64, decimals int, lo, hi float64, meaning, moved string) motion.Reading {
		return motion.Reading{ID: id, Label: label, Unit: unit, Value: v, Lo: v, Hi: v, Decimals: decimals, UsualLo: lo, UsualHi: hi, Meaning: meaning, MovedBy: moved}
	}
	out := []motion.Reading{
		exact("mass", "Mass", "g", w.MassKg*1e3, 2, 2, 8, "All paper and what is fixed to it.", "sheet and paper; cuts; clip"),
		balance(m, exact("com", "Centre of mass behind the nose", "mm", w.CoM.X*1e3, 1, 0, 0, "Where it balances on a finger, measured along the wing crease.", "nose folds, clip")),
		exact("area", "Wing area", "cm²", h.AreaM2*1e4, 0, 100, 300, "Both wings, each in its own plane.", "wing line, sheet"),
		exact("span", "Span", "mm", h.SpanM*1e3, 0, 90, 250, "From tip to tip.", "wing line, V"),
		exact("ratio", "Aspect ratio", "", h.AspectRatio(), 2, 0.5, 3, "Span times span over area: narrow and long is small.", "wing line"),
		exact("loading", "Wing loading", "N/m²", m.LoadingNM2(), 2, 1.5, 4, "Weight over wing area. Speed grows with its root.", "paper, keel depth, clip"),
	}
	out = append(out, bendReadings(m, exact)...)
	predicted := func(id, label, unit string, v, lo, hi float64, decimals int, uLo, uHi float64, meaning, moved, says string) {
		out = append(out, motion.Reading{ID: id, Label: label, Unit: unit, Value: v, Lo: math.Min(v, lo), Hi: math.Max(v, hi), Decimals: decimals, UsualLo: uLo, UsualHi: uHi,
			Predicted: true, Meaning: meaning, MovedBy: moved, Says: says})
	}
	np := d.NeutralM * 1e3
	predicted("neutral", "Neutral point behind the nose", "mm", np, np-flight.NeutralBy*m.Shape.ChordM*1e3, np+flight.NeutralBy*m.Shape.ChordM*1e3, 1, 0, 0,
		"Where extra lift acts when the nose rises a little.", "wing line, nose width", "")
	sm := 100 * m.Margin()
	predicted("margin", "Static margin", "%", sm, sm-100*flight.NeutralBy, sm+100*flight.NeutralBy, 1, -3, 8,
		"How far the centre of mass lies ahead of the neutral point, in percent of the mean chord.", "nose folds, clip, wing line", marginSays(m))
	trims := m.Trims()
	if len(trims) == 0 {
		return out
	}
	t := trims[0]
	speed, ratio, sink, stiff := doubted(m)
	predicted("trim", "Trim speed", "m/s", t.SpeedMS, speed.Lo, speed.Hi, 1, 2.5, 7, "The speed it settles to. Throw it about so fast.", "tail curl most; weight at the nose; paper", trimSays(t))
	predicted("glide", "Glide ratio", "", t.Ratio, ratio.Lo, ratio.Hi, 1, 3, 7, "Metres ahead for each metre down, when it glides evenly.", "tail curl; layers at the front edge; keel depth", "")
	predicted("sink", "Sink", "m/s", t.SinkMS, sink.Lo, sink.Hi, 2, 0.6, 1.3, "Metres down in a second.", "tail curl, wing loading", "")
	predicted("stiffness", "Pitch stiffness", "per rad", t.Stiffness, stiff.Lo, stiff.Hi, 2, 0.1, 0.25, "How firmly it holds its angle in the glide. This counts more than the static margin.", "weight at the nose, wing line", "")
	for _, o := range trims[1:] {
		predicted("trim2", "Another steady glide", "m/s", o.SpeedMS, o.SpeedMS*0.85, o.SpeedMS*1.15, 1, 0, 0, "At a steep angle it can also sink evenly: a mush.", "tail curl, weight at the nose", "")
		break
	}
	return append(out, lateralReadings(m, t)...)
}

// balance says what a centre of mass means.
func balance(m *flight.Model, r motion.Reading) motion.Reading {
	r.Brief = "behind the nose"
	long := 0.0
	for _, c := range m.Shape.Corners {
		long = math.Max(long, c.X)
	}
	if long > 0 {
		r.Says = fmt.Sprintf("That is %.0f %% of its length.", 100*m.Weight.CoM.X/long)
	}
	return r
}

// bendReadings are the last bends side by side, as they are measured on the toy.
func bendReadings(m *flight.Model, exact func(id, label, unit string, v float64, decimals int, lo, hi float64, meaning, moved string) motion.Reading) []motion.Reading {
	lip := 0.0
	sum := map[air.Part][2]float64{} // rise and run of each wing
	for _, s := range m.Shape.Strips {
		if !s.Part.Wing() {
			continue
		}
		lip = math.Max(lip, s.LipM*1e3)
		d := s.Right.Lead.Sub(s.Left.Lead)
		if s.Part == air.LeftWing {
			d.Z = -d.Z
		}
		v := sum[s.Part]
		sum[s.Part] = [2]float64{v[0] + d.Z, v[1] + d.Y}
	}
	var out []motion.Reading
	for _, q := range []struct {
		id, side string
		part     air.Part
		curl     float64
	}{{"left", "Left", air.LeftWing, m.Bends.CurlLeft}, {"right", "Right", air.RightWing, m.Bends.CurlRight}} {
		v := sum[q.part]
		out = append(out,
			exact("v_"+q.id, q.side+" wing up", "deg", geom.Deg(math.Atan2(v[0], v[1])), 1, 0, 20, "Over level, seen from behind. Paper springs back by some degrees in flight.", "wing angle"),
			exact("lip_"+q.id, q.side+" tail edge up", "mm", lip*math.Sin(q.curl), 1, 0, 2, "How high the curled edge stands over the wing, at its end.", "tail curl and its depth"))
	}
	return out
}

func marginSays(m *flight.Model) string {
	switch v := m.Margin(); {
	case v > 0.10:
		return "Nose-heavy: it needs much curl."
	case v > flight.NeutralBy:
		return "It puts itself right after a gust."
	case v < -0.05:
		return "Tail-heavy: put weight on the nose."
	case v < -flight.NeutralBy:
		return "It hardly recovers by itself."
	}
	return "Neither steady nor unsteady at small angles, as far as can be told."
}

func trimSays(t flight.Trim) string {
	if t.AttackDeg > 20 {
		return "It sinks steeply with its nose up: a mush."
	}
	if t.AttackDeg < 2 {
		return "Almost no lift: it dives."
	}
	return ""
}

// doubted is the band of a trim over the range of the uncertain constants.
func doubted(m *flight.Model) (speed, ratio, sink, stiff motion.Range) {
	var v, r, s, k []float64
	many := m.Many()
	for i := range doubtSamples {
		if t := many.Of(flight.Scatter{Constants: true}.Draw(i, flight.Throw{}, m.Bends)).Trims(); len(t) > 0 {
			v, r, s, k = append(v, t[0].SpeedMS), append(r, t[0].Ratio), append(s, t[0].SinkMS), append(k, t[0].Stiffness)
		}
	}
	if len(v) == 0 {
		return
	}
	return motion.RangeOf(v), motion.RangeOf(r), motion.RangeOf(s), motion.RangeOf(k)
}

// lateralReadings are the flags for turns, wobble and roll.
func lateralReadings(m *flight.Model, t flight.Trim) []motion.Reading {
	l := m.Sideways(t)
	var out []motion.Reading
	add := func(id, label, unit string, v float64, part float64, decimals int, meaning, moved, says string) {
		by := math.Abs(v) * part
		out = append(out, motion.Reading{ID: id, Label: label, Unit: unit, Value: v, Lo: v - by, Hi: v + by, Decimals: decimals, Predicted: true, Meaning: meaning, MovedBy: moved, Says: says})
	}
	yaw := "The nose goes back into the wind."
	if l.YawStiff <= 0 {
		yaw = "The nose may swing away: a deeper keel at the tail helps."
	}
	add("yaw", "Yaw stiffness", "", l.YawStiff, 0.3, 3, "Above 0 it turns back into the wind after a slip.", "keel at the tail, fins, V", yaw)
	if l.WobblePeriodS > 0 {
		says := "A wobble dies away."
		if l.WobbleDamping < 0 {
			says = "A wobble may grow: less V, or weight further forward. The model is unsure here, most of all with tall fins."
		}
		add("wobble", "Wobble, from side to side", "s", l.WobblePeriodS, 0.3, 2, "Time of one swing.", "V, fins, keel", says)
	}
	if l.TurnS != 0 {
		says := "A turn dies away by itself."
		if l.TurnS > 0 {
			says = "A turn gets tighter by itself: more V."
		}
		add("turn", "A turn doubles or halves in", "s", math.Abs(l.TurnS), 0.4, 1, "How long a turn takes to become twice or half as tight.", "V against fins", says)
	}
	turn, band := m.EdgeTurn()
	edge := motion.Reading{ID: "edge", Label: "Turn for 1° more curl on the right", Unit: "°/m", Value: turn, Lo: math.Min(turn, band.Lo), Hi: math.Max(turn, band.Hi), Decimals: 1, Predicted: true,
		Meaning: "Degrees of turn to the right for each metre of its glide, by the flight itself. Negative is to the left: the edge that is up drags the nose the other way.", MovedBy: "keel depth, V"}
	switch edgeSide(edge.Lo, edge.Hi) {
	case 1:
		edge.Says = "An edge up turns it to its own side."
	case -1:
		edge.Says = "An edge up turns it to the other side. Use the keel's tail."
	default:
		edge.Says = "Which side is not sure: make three test throws, or use the keel's tail."
	}
	return append(out, edge)
}

// leastTurn, degrees a metre for one degree, is too little to tell a side by.
const leastTurn = 0.2

// edgeSide is the side, 1 right, that a right edge up turns to, 0 when it is not sure.
func edgeSide(lo, hi float64) int {
	switch {
	case lo > 0 && hi > leastTurn:
		return 1
	case hi < 0 && lo < -leastTurn:
		return -1
	}
	return 0
}
