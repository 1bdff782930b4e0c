package wheels

import (
	"fmt"
	"math"

	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/motion"
	"tussock/internal/say"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
)

// Aids for single steps: whether the creases of a base alternate, how the curve of the blades
// grows with each taper, what is to be pressed again in single layers, and how both hands
// press and twist.

// fewLayers is from how many layers on a crease must be pressed again.
const fewLayers = 4

func aids(r *sequence.Replay) map[int]motion.Aid {
	out := map[int]motion.Aid{}
	var pack []motion.AidItem // creases made through many layers so far
	tapers := 0
	for _, d := range r.Steps {
		switch d.Op {
		case sequence.OpGather:
			if a, ok := rays(r, d); ok {
				out[d.No] = a
			}
		case sequence.OpCrease:
			n := d.LayersFolded()
			if n < fewLayers {
				continue
			}
			pack = append(pack, motion.AidItem{Label: say.Capital(creaseWords(r, d)), Says: fmt.Sprintf("made through %d layers: in the outermost one it lies up to %s off", n, say.MM(sheet.CreaseDrift(n, r.Sheet.ThicknessMM), 1))})
			if slanted(r, d) {
				tapers++
				out[d.No] = curve(r, tapers, n)
			}
		case sequence.OpPart:
			if len(pack) > 0 {
				out[d.No] = motion.Aid{Kind: "list", Title: "Press again in single layers", Items: pack, Done: "pressed again",
					Says: "These were pressed through the pack. Go over each of them in every leaf, one layer after the other, and tick it off: blades then bend alike."}
			}
		case sequence.OpCurl:
			out[d.No] = hands(r)
		}
	}
	for no, a := range out {
		out[no] = a.Whole()
	}
	return out
}

func creaseWords(r *sequence.Replay, d sequence.Done) string {
	if d.Name != "" {
		return r.Pattern.Called(d.Name)
	}
	return fmt.Sprintf("the crease of step %d", d.No)
}

// rays are the creases round the point of a base, each with the sense that it must have.
func rays(r *sequence.Replay, d sequence.Done) (motion.Aid, bool) {
	out := motion.Aid{Kind: "rays", Title: "Do ridges and valleys alternate?"}
	outline := r.Sheet.Outline()
	n := len(outline)
	c := geom.Polygon(outline).Centroid()
	top := r.Sheet.HeightMM
	at := func(v geom.Vec) []float64 { return []float64{round2(v.X), round2(top - v.Y)} }
	var rim []float64
	for _, v := range append(append([]geom.Vec{}, outline...), outline[0]) {
		rim = append(rim, at(v)...)
	}
	out.Lines = append(out.Lines, motion.AidLine{Points: rim})
	for i, v := range outline {
		for k, to := range []geom.Vec{v, v.Lerp(outline[(i+1)%n], 0.5)} {
			label, want := fmt.Sprintf("To corner %d", i+1), "ridge"
			if k == 1 {
				label, want = fmt.Sprintf("To the side after corner %d", i+1), "valley"
			}
			out.Items = append(out.Items, motion.AidItem{Label: label, Want: want})
			out.Lines = append(out.Lines, motion.AidLine{Points: append(at(c), at(to)...), Item: len(out.Items), Heavy: k == 0})
		}
	}
	out.Says = fmt.Sprintf("%d creases, in turn a ridge to a corner and a valley to a side, seen from the side that lies outside. Tap each as it stands on your sheet.", 2*n)
	return out, meets(d, c)
}

// meets tells whether a step has folds at a spot of the sheet.
func meets(d sequence.Done, c geom.Vec) bool {
	for _, h := range d.After.H {
		if d.After.Assigned(h) != fold.Flat && (h.P.Dist(c) < geom.OnPaper || h.Q.Dist(c) < geom.OnPaper) {
			return true
		}
	}
	return false
}

// slanted tells whether a crease runs neither square to the axle nor along it: a taper.
func slanted(r *sequence.Replay, d sequence.Done) bool {
	for _, q := range r.Parts {
		f := d.Before.FacetsAtSheet(q.Pieces[0].A)
		g := d.Before.FacetsAtSheet(q.Pieces[0].B)
		if len(f) == 0 || len(g) == 0 {
			continue
		}
		up := d.Before.F[g[0]].Iso.Apply(q.Pieces[0].B).Sub(d.Before.F[f[0]].Iso.Apply(q.Pieces[0].A)).Unit()
		along := math.Abs(up.Dot(geom.Vec{X: -d.Line.N.Y, Y: d.Line.N.X}))
		return along > 0.01 && along < 0.99
	}
	return false
}

// bendDeg is by how much a blade bends along one crease that was folded and opened: 15 to 30°
// is what soft paper keeps. An estimate.
const bendDeg = 20.0

// strips is into how many strips a pack is divided.
const strips = 8

// curve is a blade from its edge after so many tapers: it has bent along each of them.
func curve(r *sequence.Replay, tapers, layers int) motion.Aid {
	const strip = 10.0
	a := motion.Aid{Kind: "curve", Title: "How the curve grows",
		Says: fmt.Sprintf("The blade from its rim, bent along %d of %d tapers by some %d° each: it should bow by about %d° so far.", tapers, strips-1, int(bendDeg), int(bendDeg)*tapers)}
	if wide, least := packMM(r)/strips, sheet.FoldingLimit(1, float64(layers)*r.Sheet.ThicknessMM); wide < least {
		a.Says += fmt.Sprintf(" A strip is only %s wide, and a pack of %d layers folds over from %s on: score these lines instead.", say.MM(wide, 1), layers, say.MM(least, 1))
	}
	now, dir := geom.Vec{X: 0, Y: 0}, 0.0
	line := []float64{0, 0}
	for k := range strips {
		sin, cos := math.Sincos(dir)
		now = now.Add(geom.Vec{X: strip * cos, Y: strip * sin})
		line = append(line, round2(now.X), round2(-now.Y))
		if k < tapers {
			dir += geom.Rad(bendDeg)
		}
	}
	a.Lines = []motion.AidLine{{Points: line, Heavy: true}, {Points: []float64{0, 0, strip * strips, 0}}}
	return a
}

// packMM is how long the pack is, from its tip to its foot.
func packMM(r *sequence.Replay) float64 {
	for _, q := range r.Parts {
		return q.Pieces[0].A.Dist(q.Pieces[0].B)
	}
	return 0
}

// hands are how the wheel is pressed and twisted, against the way that it will turn seen from
// above.
func hands(r *sequence.Replay) motion.Aid {
	a := motion.Aid{Kind: "hands", Title: "Press and twist with both hands", Says: "One hand holds the foot on the table, fingers between the leaves. The other lays its palm on the tip."}
	g, err := Of(r)
	if err != nil || g.Sense == 0 {
		return a
	}
	// The tip of each blade trails: seen from the tip it is turned against the way in which the
	// foot leads.
	a.Clock = g.Sense
	breath, above := senseFrom(g.Sense)
	way := "clockwise"
	if a.Clock < 0 {
		way = "against the clock"
	}
	a.Items = []motion.AidItem{
		{Label: "Hold the foot with one hand, the leaves between its fingers"},
		{Label: fmt.Sprintf("Turn the tip %s with the other, seen from above, and press it down as it gives", way)},
		{Label: "Stop when the blades lie at about a third of a right angle, all to one side"},
		{Label: fmt.Sprintf("Let go: seen from the breath at the open side it will turn %s, seen from the tip %s", breath, above)},
	}
	return a
}
