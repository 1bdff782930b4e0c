package draw_test

import (
	"math"
	"slices"
	"testing"

	"tussock/internal/body"
	. "tussock/internal/draw" //nolint:revive // tests of what is not exported too
	"tussock/internal/motion/glide/craft"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
	"tussock/internal/shelf"
)

func replay(t testing.TB, id string, knobs map[string]float64) *sequence.Replay {
	t.Helper()
	p, ok := shelf.Find(id)
	if !ok {
		t.Fatalf("no %s on the shelf", id)
	}
	s, err := sheet.New(p.WidthMM, p.HeightMM, 80, 0.1)
	if err != nil {
		t.Fatal(err)
	}
	r := p.Run(s, knobs)
	if r.Err != nil {
		t.Fatal(r.Err)
	}
	return r
}

// Every piece is painted once, whatever lies on another after it, and no piece
// is moved for display by more than the cap.
func TestFlatPaintsInOrder(t *testing.T) {
	for _, id := range shelf.Names() {
		for _, d := range replay(t, id, nil).Steps {
			s := d.After
			pic := Flat(s)
			if len(pic.Faces) != len(s.F) {
				t.Fatalf("%s step %d: %d faces for %d pieces", id, d.No, len(pic.Faces), len(s.F))
			}
			ranked, ok := s.Ranked()
			if !ok {
				t.Fatalf("%s step %d: layers in a ring", id, d.No)
			}
			slack := FanCap*math.Max(s.Box().Width(), s.Box().Height()) + 0.02
			for i, f := range ranked {
				for _, g := range ranked[:i] {
					if s.Above(g, f) > 0 {
						t.Fatalf("%s step %d: a piece is painted over one that lies on it", id, d.No)
					}
				}
				if pic.Faces[i].Front != s.F[f].Iso.FaceUp() {
					t.Errorf("%s step %d: the wrong face shows", id, d.No)
				}
				for k, v := range s.Folded(f) {
					dx, dy := pic.Faces[i].Points[2*k]-v.X, -pic.Faces[i].Points[2*k+1]-v.Y
					if math.Max(math.Abs(dx), math.Abs(dy)) > slack {
						t.Fatalf("%s step %d: a corner is drawn %.2f mm away from its place", id, d.No, math.Hypot(dx, dy))
					}
				}
			}
		}
	}
}

// slivers are the patterns whose flaps stop a hair short or lie a hair beside another.
var slivers = map[string]bool{"fortune": true, "whimbrel": true, "turnstone": true}

// The two signs of a fold lie where folding brings one onto the other; what is
// shown as moving has the area that moves.
func TestNextShowsTheFold(t *testing.T) {
	for _, id := range shelf.Names() {
		for _, d := range replay(t, id, nil).Steps {
			o := Next(d)
			// A mark and a cut move nothing, a zigzag ends where it began.
			still := d.Op == sequence.OpPinch || d.Op == sequence.OpCut || d.Op == sequence.OpTear || d.Op == sequence.OpPleat || d.Op == sequence.OpReverse || d.Op == sequence.OpSink
			if d.HasLine() && (len(o.Strokes) == 0 || len(o.Arrows) != 1 && !still) {
				t.Errorf("%s step %d has %d lines and %d arrows", id, d.No, len(o.Strokes), len(o.Arrows))
			}
			if d.Meets[0].Name != "" {
				var meet []Sign
				for _, g := range o.Signs {
					if g.Kind == "meet" {
						meet = append(meet, g)
					}
				}
				if len(meet) != 2 {
					t.Fatalf("%s step %d has %d signs of what meets", id, d.No, len(meet))
				}
				slack := d.GapMM + FanCap*math.Max(d.Before.Box().Width(), d.Before.Box().Height()) + 0.01
				a := d.Line.Mirror(d.Meets[0].At)
				if math.Abs(meet[1].At[0]-a.X) > slack || math.Abs(-meet[1].At[1]-a.Y) > slack {
					t.Errorf("%s step %d: the sign stands at %v, the fold brings it to %v", id, d.No, meet[1].At, a)
				}
			}
			thickest := 0
			for _, m := range o.Moving {
				thickest = max(thickest, m.Layers)
			}
			// Slivers are drawn, and not counted as a stack: only a gap makes them.
			if n := d.LayersFolded(); d.HasLine() && d.Op != sequence.OpCrease && !still && (thickest < n || thickest > n && !slivers[id]) {
				t.Errorf("%s step %d: %d layers are shown, %d are folded", id, d.No, thickest, d.LayersFolded())
			}
			for _, a := range o.Arrows {
				drawn := slices.Clone(a.Shaft)
				for _, h := range a.Heads {
					drawn = append(drawn, h.Points...)
				}
				if len(a.Shaft) != 8 || len(a.Heads) == 0 {
					t.Errorf("%s step %d: an arrow with %d numbers and %d heads", id, d.No, len(a.Shaft), len(a.Heads))
				}
				for i := 0; i < len(drawn); i += 2 {
					x, y := drawn[i], drawn[i+1]
					if x < o.View[0]-0.02 || y < o.View[1]-0.02 || x > o.View[0]+o.View[2]+0.02 || y > o.View[1]+o.View[3]+0.02 {
						t.Errorf("%s step %d: the arrow leaves the picture", id, d.No)
					}
				}
			}
		}
	}
	// By hand: the Curlew's first wing takes four layers along.
	if n := replay(t, "curlew", nil).Steps[6].LayersFolded(); n != 4 {
		t.Errorf("the wing fold takes %d layers", n)
	}
}

func TestLayerMapLabels(t *testing.T) {
	m := body.Measure(replay(t, "shelduck", nil).Final())
	regions := Layers(m.Cells)
	labels := map[int]int{}
	most := 0
	for _, r := range regions {
		most = max(most, r.Layers)
		if r.Label != nil {
			labels[r.Layers]++
		}
	}
	if most != 24 {
		t.Errorf("the thickest region has %d layers, want 24", most)
	}
	for n, k := range labels {
		if k != 1 {
			t.Errorf("%d layers are labelled %d times", n, k)
		}
	}
}

// Seen straight from behind a glider is its own mirror image, and its wings rise
// by as much as the V says.
func TestBehindIsSymmetric(t *testing.T) {
	for _, angle := range []float64{60, 90, 110} {
		r := replay(t, "shelduck", map[string]float64{"wing": angle, "depth": 25})
		pose := body.Standing(r)
		f, ok := craft.FrameOf(r, pose)
		if !ok {
			t.Fatal("no frame")
		}
		pic := Round(pose, Behind(f.Chord, f.Right, 0, 0))
		middle := pic.View[0] + pic.View[2]/2
		if math.Abs(pic.CoM[0]-middle) > 0.02 {
			t.Errorf("wings %v: the centre of mass is %.2f mm off the middle", angle, pic.CoM[0]-middle)
		}
		g, _ := craft.Measure(r, pose)
		if math.Abs(pic.View[2]-g.SpanMM) > 0.02 {
			t.Errorf("wings %v: drawn %.2f mm wide, span %.2f", angle, pic.View[2], g.SpanMM)
		}
		rise := 80 * math.Sin((90-angle)*math.Pi/180) // each wing is 80 mm wide
		want := 25 + math.Max(0, rise)
		if rise < -25 {
			want = -rise
		}
		if math.Abs(pic.View[3]-want) > 0.02 {
			t.Errorf("wings %v: drawn %.2f mm high, by hand %.2f", angle, pic.View[3], want)
		}
	}
}

// What is nearer is painted later: seen from above the wings come after the
// keel, seen from below before it.
func TestNearerIsPaintedLater(t *testing.T) {
	r := replay(t, "curlew", nil)
	pose := body.Standing(r)
	f, _ := craft.FrameOf(r, pose)
	keelFirst := func(elevation float64) bool {
		return pose.PartOf(FirstPainted(pose, Behind(f.Chord, f.Right, 35, elevation))) == 0
	}
	if !keelFirst(30) {
		t.Error("from above, a wing is painted before the keel it hides")
	}
	if keelFirst(-30) {
		t.Error("from below, the keel is painted before the wing it hides")
	}
}
