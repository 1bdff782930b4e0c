package draw_test

import (
	"math"
	"regexp"
	"slices"
	"strconv"
	"testing"

	. "tussock/internal/draw" //nolint:revive // tests of what is not exported too
	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/sequence"
	"tussock/internal/shelf"
)

// everyStep goes through all steps of the shelf.
func everyStep(t *testing.T, do func(t *testing.T, r *sequence.Replay, d sequence.Done)) {
	t.Helper()
	for _, id := range shelf.Names() {
		r := replay(t, id, nil)
		for _, d := range r.Steps {
			do(t, r, d)
		}
	}
}

// places are the words of a step that say where, up to those that only say what is taken
// along and which of two ways is meant.
var (
	asideOf = regexp.MustCompile(`\b(moving|grab|near|toward|layers|under|over|expect|fixed|as|about|gap|guard|radius|length|between|swap|down|up|type|square|removing|spine)\b.*|^(sink|crimp|squash|petal) \w+|^reverse (inside|outside) \w+`)
	words   = regexp.MustCompile(`[A-Za-z_]\w*`)
	calls   = regexp.MustCompile(`\b(part|mid|toward|turned|meet|foot|par|taper|square|sheet|bis|rim|dist)\([^()]*(\([^()]*\)[^()]*)*\)`)
)

// Every landmark that places a fold by its name has a sign on the picture, no farther from
// where it lies than the layers are fanned.
func TestNamedPlacesHaveSigns(t *testing.T) {
	seen := 0
	everyStep(t, func(t *testing.T, r *sequence.Replay, d sequence.Done) {
		if !d.HasLine() {
			return
		}
		o := Next(d)
		size := math.Max(d.Before.Box().Width(), d.Before.Box().Height())
		slack := (FanCap + 0.02) * size * math.Sqrt2
		for _, w := range words.FindAllString(asideOf.ReplaceAllString(calls.ReplaceAllString(d.Text, ""), ""), -1) {
			p, ok := r.Landmarks[w]
			if !ok {
				continue
			}
			var at []geom.Vec // on any piece that it lies on the rim of
			for _, f := range d.Before.FacetsAtSheet(p) {
				at = append(at, d.Before.F[f].Iso.Apply(p))
			}
			seen++
			if !slices.ContainsFunc(o.Signs, func(s Sign) bool {
				return slices.ContainsFunc(at, func(q geom.Vec) bool { return math.Hypot(s.At[0]-q.X, s.At[1]+q.Y) < slack })
			}) {
				t.Errorf("%s step %d (%s): %s has no sign", r.Pattern.ID, d.No, d.Text, w)
			}
		}
	})
	if seen < 100 {
		t.Errorf("only %d landmarks were looked for", seen)
	}
}

// inPaper tells whether a spot of a picture lies on a piece of a state that passes, within
// the fan of its layers.
func inPaper(s *fold.State, x, y, slack float64, which func(fold.FacetID) bool) bool {
	for i := range s.F {
		if which(fold.FacetID(i)) && s.Folded(fold.FacetID(i)).Contains(geom.Vec{X: x, Y: -y}, slack) {
			return true
		}
	}
	return false
}

// Arrows of folds begin on paper that moves and end where that paper comes to lie.
func TestArrowsLieOnWhatMoves(t *testing.T) {
	arrows := 0
	everyStep(t, func(t *testing.T, r *sequence.Replay, d sequence.Done) {
		if d.InTheRound() || len(d.Moves) == 0 || d.Op == sequence.OpTurn || d.Op == sequence.OpRotate || d.Op == sequence.OpPleat {
			return
		}
		o := Next(d)
		slack := FanCap*math.Max(d.Before.Box().Width(), d.Before.Box().Height())*1.5 + 0.02
		if len(o.Arrows) == 0 && d.Op != sequence.OpCut && d.Op != sequence.OpTear && d.Op != sequence.OpGlue {
			t.Errorf("%s step %d (%s) has no arrow", r.Pattern.ID, d.No, d.Op)
		}
		opens := d.Op == sequence.OpCrease || d.Op == sequence.OpPinch || d.Op == sequence.OpRays
		moved := map[fold.FacetID]bool{}
		for _, f := range d.After.F {
			for _, root := range d.Before.FacetsAtSheet(f.Poly.Centroid()) {
				if !d.Before.F[root].Iso.Near(f.Iso, geom.Still) {
					moved[root] = true
				}
			}
		}
		for _, a := range o.Arrows {
			arrows++
			if !inPaper(d.Before, a.Shaft[0], a.Shaft[1], slack, func(f fold.FacetID) bool { return opens || moved[f] }) {
				t.Errorf("%s step %d (%s): the arrow begins at %.1f %.1f, where nothing moves", r.Pattern.ID, d.No, d.Op, a.Shaft[0], a.Shaft[1])
			}
			end := func(s *fold.State, x, y float64) bool {
				return inPaper(s, x, y, slack, func(fold.FacetID) bool { return true })
			}
			x, y := a.Shaft[6], a.Shaft[7]
			if opens { // where it lands for a moment
				q := d.Line.Mirror(geom.Vec{X: x, Y: -y})
				x, y = q.X, -q.Y
			}
			if !end(d.After, x, y) {
				t.Errorf("%s step %d (%s): the arrow ends at %.1f %.1f, where no paper comes to lie", r.Pattern.ID, d.No, d.Op, x, y)
			}
		}
	})
	if arrows < 100 {
		t.Errorf("only %d arrows were looked at", arrows)
	}
}

// What is shaded lies within the paper as it is drawn, and is as large as what moves but
// for the fan.
func TestShadingLiesOnThePaper(t *testing.T) {
	everyStep(t, func(t *testing.T, r *sequence.Replay, d sequence.Done) {
		pic, o := Flat(d.Before), Next(d)
		var faces []geom.Polygon
		for _, f := range pic.Faces {
			var p geom.Polygon
			for i := 0; i+1 < len(f.Points); i += 2 {
				p = append(p, geom.Vec{X: f.Points[i], Y: -f.Points[i+1]})
			}
			faces = append(faces, p)
		}
		for _, m := range o.Moving {
			for i := 0; i+1 < len(m.Points); i += 2 {
				v := geom.Vec{X: m.Points[i], Y: -m.Points[i+1]}
				if !slices.ContainsFunc(faces, func(p geom.Polygon) bool { return p.Contains(v, 0.03) }) {
					t.Fatalf("%s step %d (%s): the shading leaves the paper at %v", r.Pattern.ID, d.No, d.Op, v)
				}
			}
		}
	})
}

// A toy that is its own mirror image is drawn so.
func TestFanIsEven(t *testing.T) {
	for _, id := range []string{"curlew", "fortune", "natterjack", "sandhopper"} {
		r := replay(t, id, nil)
		for _, d := range r.Steps {
			mirrored, c := true, d.Before.Box().Centre().X
			corners := func(v geom.Vec) bool {
				for i := range d.Before.F {
					for _, q := range d.Before.Folded(fold.FacetID(i)) {
						if q.Dist(v) < 0.02 {
							return true
						}
					}
				}
				return false
			}
			for i := range d.Before.F {
				for _, v := range d.Before.Folded(fold.FacetID(i)) {
					mirrored = mirrored && corners(geom.Vec{X: 2*c - v.X, Y: v.Y})
				}
			}
			if !mirrored || len(d.Before.F) < 3 {
				continue
			}
			pic := Flat(d.Before)
			lo, hi := math.Inf(1), math.Inf(-1)
			for _, f := range pic.Faces {
				for k := 0; k < len(f.Points); k += 2 {
					lo, hi = math.Min(lo, f.Points[k]-c), math.Max(hi, f.Points[k]-c)
				}
			}
			if math.Abs(lo+hi) > 0.05 {
				t.Errorf("%s step %d: a toy that is its own mirror image is drawn from %.2f to %.2f mm of its middle", id, d.No, lo, hi)
			}
		}
	}
}

// Every length and angle that a knob sets stands on the picture of the step that uses it.
func TestKnobsStandOnThePictures(t *testing.T) {
	for _, id := range shelf.Names() {
		r := replay(t, id, nil)
		for _, k := range r.Pattern.Knobs {
			v := r.Values[k.Name]
			if k.Kind != sequence.HardFold || k.Plain || k.Unit != "mm" || v == 0 {
				continue
			}
			drawn := false
			for _, no := range k.Steps {
				for _, s := range Next(r.Steps[no-1]).Sizes {
					m := quantities.FindStringSubmatch(s.Text)
					drawn = drawn || m != nil && within(m[1], v)
					for _, o := range r.Pattern.Knobs { // two that stand in one measure
						drawn = drawn || m != nil && o.Unit == "mm" && o.Name != k.Name && within(m[1], v+r.Values[o.Name])
					}
				}
			}
			if !drawn {
				t.Errorf("%s: no picture shows the %v mm of %q (steps %v)", id, v, k.Label, k.Steps)
			}
		}
	}
}

// within tells whether a figure is a value, or half, twice or the diagonal part of it.
func within(figure string, v float64) bool {
	f, err := strconv.ParseFloat(figure, 64)
	for _, k := range []float64{1, 0.5, 2, math.Sqrt2 / 2} {
		if err == nil && math.Abs(f-k*v) < 0.06 {
			return true
		}
	}
	return false
}

// Steps whose ends do not show the way have a picture half-way, between the two.
func TestHalfway(t *testing.T) {
	shown, hidden := 0, 0
	everyStep(t, func(t *testing.T, r *sequence.Replay, d sequence.Done) {
		p, ok := HalfwayOf(r, d.No)
		switch {
		case ok:
			shown++
			moves, stays := 0, 0
			for _, f := range p.Faces {
				if f.Moves {
					moves++
				} else {
					stays++
				}
			}
			if moves == 0 || stays == 0 {
				t.Errorf("%s step %d: half-way %d pieces move and %d stay", r.Pattern.ID, d.No, moves, stays)
			}
		case d.Op == sequence.OpCollapse || d.Op == sequence.OpRabbit || d.Op == sequence.OpSquash || d.Op == sequence.OpPleat:
			t.Errorf("%s step %d: a %s has no picture half-way", r.Pattern.ID, d.No, d.Op)
		case d.Op == sequence.OpSink || d.Op == sequence.OpReverse:
			hidden++
		}
	})
	if shown < 8 {
		t.Errorf("only %d steps are shown half-way, %d are not", shown, hidden)
	}
}

// The SVG of a step stays small.
func TestStepSVGIsSmall(t *testing.T) {
	everyStep(t, func(t *testing.T, r *sequence.Replay, d sequence.Done) {
		most := 60_000
		switch {
		case d.Op == sequence.OpWrap: // what is rolled up is drawn in strips
			most = 100_000
		case slices.ContainsFunc(r.Bends, func(b sequence.Bending) bool { return b.All && b.Step <= d.No }): // and a pack of curled leaves, strip by strip
			most = 350_000
		}
		st := StageOf(r, d.No, Watching)
		if n := len(SVG(st.Picture, &st.Over, Plain)); n > most || n < 500 {
			t.Errorf("%s step %d: %d bytes", r.Pattern.ID, d.No, n)
		}
	})
}

func BenchmarkStepSVG(b *testing.B) {
	r := replay(b, "sandhopper", nil)
	b.ReportAllocs()
	for b.Loop() {
		for _, no := range []int{6, 16, 19} {
			st := StageOf(r, no, Watching)
			_ = SVG(st.Picture, &st.Over, Plain)
		}
	}
}
