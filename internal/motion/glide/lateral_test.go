package glide

import (
	"math"
	"testing"

	"tussock/internal/motion/glide/flight"
)

// What is said of left and right is what the flight does: a tail edge that is up turns all
// seven, on every sheet, to the side that their reading says where it is sure of one.
func TestFlagsAreThoseOfTheFlight(t *testing.T) {
	sure := 0
	for _, id := range gliders {
		p := pattern(t, id)
		for name, s := range offices(p) {
			w := benchOn(t, p, s, 0)
			m, err := w.Model(nil)
			if err != nil {
				t.Fatal(err)
			}
			right, _, err := w.heading(map[string]float64{"curl_uneven": 2})
			left, _, err2 := w.heading(map[string]float64{"curl_uneven": -2})
			if err != nil || err2 != nil || math.Abs(right+left) > 1e-6 {
				t.Fatalf("%s on %s: %v and %v (%v, %v)", id, name, right, left, err, err2)
			}
			_, band := m.EdgeTurn()
			side := edgeSide(band.Lo, band.Hi)
			if side != 0 {
				sure++
			}
			if float64(side)*right < 0 || side == 0 && math.Abs(right) > 8 {
				t.Errorf("%s on %s: told to turn to %d, it turns by %.1f°", id, name, side, right)
			}
			// Let go with its nose aside, it swings back unless it was said to swing away.
			trim := m.Trims()[0]
			stiff := m.Sideways(trim).YawStiff
			aside := flight.Throw{SpeedMS: trim.SpeedMS, AngleDeg: -math.Atan2(1, trim.Ratio) * 180 / math.Pi, NoseDeg: trim.AttackDeg, HeightM: 4, YawDeg: 4}
			path := make([]flight.Sample, 0, 600)
			m.Fly(aside, flight.Room{}, &path)
			most := 0.0
			for _, q := range path {
				if q.T < 0.5 {
					most = math.Max(most, math.Abs(q.Slip))
				}
			}
			if (stiff > 0.02) != (most < 3*math.Abs(path[0].Slip)) && math.Abs(stiff) > 0.02 {
				t.Errorf("%s on %s: yaw stiffness %.3f, and a slip of %.1f° grows to %.1f°", id, name, stiff, path[0].Slip, most)
			}
		}
	}
	if sure < 12 {
		t.Errorf("only %d of all are sure of a side", sure)
	}
}
