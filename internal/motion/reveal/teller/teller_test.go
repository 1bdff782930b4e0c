package teller

import (
	"math"
	"math/rand/v2"
	"slices"
	"sync"
	"testing"

	"tussock/internal/geom"
)

func close(t *testing.T, what string, got, want, by float64) {
	t.Helper()
	if !(math.Abs(got-want) <= by) {
		t.Errorf("%s: %.6g, want %.6g", what, got, want)
	}
}

func TestOpeningIsExact(t *testing.T) {
	for _, c := range []struct{ g, eta, d, mid float64 }{{10, 44.109, .1228, .348}, {20, 41.194, .2418, .3293}, {30, 35.264, .3536, .2887}, {40, 22.622, .4545, .1923}} {
		o := Open(geom.Rad(c.g))
		close(t, "η", geom.Deg(o.Eta), c.eta, 6e-4)
		close(t, "gap of points", o.TipGapMM(1), c.d, 6e-5)
		close(t, "gap of middles", o.MidGapMM(1), c.mid, 6e-5)
	}
	close(t, "alike", geom.Deg(AlikeRad()), 32.765, 6e-4)
	close(t, "alike", Open(AlikeRad()).Eta, AlikeRad(), 1e-12)
	close(t, "full", Open(Full).MidGapMM(100), 0, 1e-5)
	for _, c := range []struct{ g, delta, n, chi float64 }{{0, 90, 0, 109.471221}, {10, 100.155889, 28.431706, 99.602442}, {25, 117.794884, 73.406765, 80.941242}, {40, 147.045165, 130.745757, 45.399400}} {
		d := Open(geom.Rad(c.g)).Dihedrals()
		close(t, "δ", d.Delta, c.delta, 1e-5)
		close(t, "n", d.N, c.n, 1e-5)
		close(t, "χ", d.Chi, c.chi, 1e-5)
	}
}

// Every panel keeps its sides through the whole opening, and the outer panels their square.
func TestOpeningCloses(t *testing.T) {
	const side = 150.0
	for i := range 91 {
		o := Open(geom.Rad(float64(i) / 2))
		c := o.Corners(side)
		for k := range c.Tip {
			for _, m := range []geom.Vec3{c.Mid[k], c.Mid[(k+1)%4]} {
				close(t, "number side", m.Len(), side/4, 1e-9)
				close(t, "rim", m.Dist(c.Tip[k]), side/4, 1e-9)
				close(t, "outer panel", m.Dist(c.Flap[k]), side/4, 1e-9)
			}
			close(t, "diagonal", c.Tip[k].Len(), side/4*math.Sqrt2, 1e-9)
			close(t, "outer diagonal", c.Tip[k].Dist(c.Flap[k]), side/4*math.Sqrt2, 1e-9)
		}
		close(t, "pairs", c.Tip[0].Dist(c.Tip[3])+c.Tip[1].Dist(c.Tip[2]), 0, 1e-9)
		close(t, "gap of points", c.Tip[0].Dist(c.Tip[1]), o.TipGapMM(side), 1e-9)
		close(t, "gap of middles", c.Mid[1].Dist(c.Mid[3]), o.MidGapMM(side), 1e-9)
	}
}

func TestFingers(t *testing.T) {
	close(t, "depth", DepthMM(100), 21.65, 5e-3)
	for _, c := range []struct{ s, d, x float64 }{{100, 9, 11.6}, {100, 12, 8.2}, {100, 15, 4.9}, {100, 18, 1.5}, {150, 15, 15.7}, {150, 18, 12.4}, {150, 20, 10.1}} {
		close(t, "inside", InsideMM(c.s, c.d), c.x, 0.06)
	}
	for _, c := range []struct{ d, s float64 }{{12, 108}, {18, 139}, {20, 149.5}} {
		close(t, "side", SideFor(c.d), c.s, 0.5)
		close(t, "law", SideFor(c.d), 46.2+5.164*c.d, 0.05)
		close(t, "back", InsideMM(SideFor(c.d), c.d), ComfortMM, 1e-9)
		if p := ProposedMM(c.d, 210); p < SideFor(c.d) || p > SideFor(c.d)+RoundUpMM {
			t.Errorf("for %g mm a side of %g is proposed", c.d, p)
		}
	}
	close(t, "widest", WidestMM(100), 19.4, 0.05)
	close(t, "no deeper than the mouth", InsideMM(100, WidestMM(100)), 0, 1e-9)
	if ProposedMM(30, 120) != 120 {
		t.Error("a side is proposed that the sheet has not")
	}
	b, f, p := Sizes(215.9)
	close(t, "letter", b, 152.7, .05)
	close(t, "letter", f, 108, .05)
	close(t, "letter", p, 54, .05)
}

// The overlap against a construction of the two creases.
func TestOverlapOfAnUnevenSheet(t *testing.T) {
	for _, c := range [][3]float64{{150, 150, 0}, {150, 151, 0}, {148, 152, .5}, {151, 150, 0.8}} {
		w, h := min(c[0], c[1]), max(c[0], c[1])
		corner, middle := geom.Vec{}, geom.Vec{X: w / 2, Y: h / 2}
		u := middle.Unit()
		at := geom.Mid(corner, middle.Sub(u.Scale(c[2]))) // of the crease, which is square to u
		x := at.Dot(u) / u.X                              // where it meets the side y = 0
		over, trim := OverlapMM(c[0], c[1], c[2])
		close(t, "overlap", over, 2*x-w, 0.02)
		close(t, "trim", trim, h-w, 1e-12)
	}
	if over, _ := OverlapMM(150, 150, 0.8); over >= 0 {
		t.Error("a square with a gap binds")
	}
}

func TestOddsOfTables(t *testing.T) {
	clockwise := [Halves]int{1, 2, 3, 4, 5, 6, 7, 8}
	for _, words := range [][Panels]int{{3, 4, 5, 6}, {4, 4, 6, 6}, {3, 5, 3, 5}} {
		for rounds := 1; rounds < 4; rounds++ {
			odds := Game{words, clockwise, rounds}.Odds()
			if !Fair(odds) {
				t.Errorf("%v, %d rounds: %v", words, rounds, odds)
			}
		}
	}
	g := Game{Words: [Panels]int{3, 4, 5, 6}, Rounds: 1}
	for i, h := range A.Visible() {
		g.Numbers[h], g.Numbers[B.Visible()[i]] = 2*i+1, 2*i+2
	}
	odds := g.Odds()
	for h, p := range odds {
		want := 0.25
		if Shown(h) == A {
			want = 0
		}
		close(t, "all odd the one way", p, want, 1e-12)
	}
	if n := Never(odds); !slices.Equal(n, A.Visible()) {
		t.Errorf("never reached: %v", n)
	}
	even := Game{[Panels]int{4, 4, 6, 6}, clockwise, 0}
	if n := Never(even.Odds()); !slices.Equal(n, A.Visible()) {
		t.Errorf("words all even, no number: never %v", n)
	}
	if s, one := even.OneParity(); !one || s != B {
		t.Error("words of one parity are not seen")
	}
	for moves, want := range []Side{B, A, B, A} {
		if After(moves) != want {
			t.Errorf("after %d moves %v", moves, After(moves))
		}
	}
}

// played is the toy itself, by hand: it is pulled one way and the other in turn. Choices are
// random bits.
func played(g Game, choices uint64) int {
	choose := func() int {
		choices >>= 2
		return int(choices & 3)
	}
	leftRight := false // what was pulled last
	pull := func(n int) {
		for range n {
			leftRight = !leftRight
		}
	}
	pull(g.Words[choose()])
	flaps := map[bool][4]int{true: {7, 0, 3, 4}, false: {1, 2, 5, 6}}
	for range g.Rounds {
		pull(g.Numbers[flaps[leftRight][choose()]])
	}
	return flaps[leftRight][choose()]
}

func random(r *rand.Rand) Game {
	var g Game
	for i := range g.Words {
		g.Words[i] = r.IntN(10)
	}
	for i := range g.Numbers {
		g.Numbers[i] = r.IntN(13)
	}
	g.Rounds = r.IntN(4)
	return g
}

// The exact chain against a million games played of each of 200 tellers: no chance off by
// more than five standard deviations.
func TestOddsAgainstPlay(t *testing.T) {
	games, tellers := 1_000_000, 200
	if testing.Short() {
		games, tellers = 100_000, 40
	}
	var group sync.WaitGroup
	for i := range tellers {
		group.Go(func() {
			r := rand.New(rand.NewPCG(uint64(i), 21))
			g := random(r)
			odds := g.Odds()
			var count [Halves]int
			for range games {
				count[played(g, r.Uint64())]++
			}
			sum := 0.0
			for h, p := range odds {
				sum += p
				sd := math.Sqrt(p * (1 - p) / float64(games))
				if got := float64(count[h]) / float64(games); math.Abs(got-p) > 5*sd {
					t.Errorf("%+v: message %d came up in %.5f, by the chain %.5f", g, h, got, p)
				}
			}
			close(t, "all chances", sum, 1, 1e-12)
		})
	}
	group.Wait()
}

// Proposals are fair, and no numbering with fewer changes is: tried for every choice of
// halves that change.
func TestFairNumbersAreFewest(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 4))
	for range 400 {
		g := random(r)
		g.Rounds = 1 + r.IntN(3)
		changes := g.FairNumbers()
		after := g
		for _, c := range changes {
			if after.Numbers[c.Half] != c.From || c.To < 0 || (c.To-c.From)&1 == 0 {
				t.Fatalf("%+v: a change %+v", g, c)
			}
			after.Numbers[c.Half] = c.To
		}
		if !Fair(after.Odds()) {
			t.Fatalf("%+v: after %v the chances are %v", g, changes, after.Odds())
		}
		for set := range 1 << Halves {
			n, other := 0, g
			for h := range Halves {
				if set>>h&1 == 1 {
					n++
					other.Numbers[h]++
				}
			}
			even := other
			even.Words = [Panels]int{1, 1, 1, 1}
			odd := other
			odd.Words = [Panels]int{2, 2, 2, 2}
			if n < len(changes) && Fair(even.Odds()) && Fair(odd.Odds()) {
				t.Fatalf("%+v: %d changes are proposed, %d are enough", g, len(changes), n)
			}
		}
	}
}

func TestWrittenPlays(t *testing.T) {
	g := Game{[Panels]int{3, 4, 5, 6}, [Halves]int{1, 2, 3, 4, 5, 6, 7, 8}, 1}
	r := rand.New(rand.NewPCG(9, 9))
	for range 500 { // what can be played has no slip
		p := Play{Panel: r.IntN(Panels)}
		s := After(g.Words[p.Panel])
		for range 1 + r.IntN(3) {
			h := s.Visible()[r.IntN(4)]
			p.Chosen = append(p.Chosen, h)
			s = s.Moved(g.Numbers[h])
		}
		p.Opened = s.Visible()[r.IntN(4)]
		if _, slip := g.Walk(p); slip != nil {
			t.Fatalf("%+v: %+v", p, slip)
		}
		wrong := p
		wrong.Opened = s.Moved(1).Visible()[r.IntN(4)]
		if _, slip := g.Walk(wrong); slip == nil || slip.At != len(p.Chosen)+1 || slip.Showed != s {
			t.Fatalf("%+v: %+v", wrong, slip)
		}
	}
	if _, slip := g.Walk(Play{Panel: 0, Opened: 0}); slip == nil || !slip.TooShort {
		t.Errorf("a play without its round: %+v", slip)
	}
}

func FuzzOdds(f *testing.F) {
	f.Add(uint64(1))
	f.Fuzz(func(t *testing.T, seed uint64) {
		g := random(rand.New(rand.NewPCG(seed, 1)))
		odds := g.Odds()
		sum := 0.0
		for _, p := range odds {
			if p < 0 || p > 0.25+1e-12 {
				t.Errorf("a chance of %g", p)
			}
			sum += p
		}
		close(t, "sum", sum, 1, 1e-12)
	})
}

func BenchmarkOdds(b *testing.B) {
	g := random(rand.New(rand.NewPCG(1, 1)))
	g.Rounds = 5
	for b.Loop() {
		g.Odds()
	}
}

// The zones against the table of the law, on a square of side 1.
func TestZonesOfTheTable(t *testing.T) {
	centre := func(x ...float64) geom.Vec {
		return geom.Vec{X: (x[0] + x[2] + x[4]) / 3, Y: (x[1] + x[3] + x[5]) / 3}
	}
	type want struct {
		at   geom.Vec
		turn float64
	}
	tables := map[string][]want{
		Outer: {{geom.Vec{X: .875, Y: .875}, 90}, {geom.Vec{X: .125, Y: .875}, 270}, {geom.Vec{X: .125, Y: .125}, 90}, {geom.Vec{X: .875, Y: .125}, 270}},
		Number: {{centre(.5, 1, .75, 1, .75, .75), 270}, {centre(1, .5, 1, .75, .75, .75), 90}, {centre(1, .5, 1, .25, .75, .25), 270}, {centre(.5, 0, .75, 0, .75, .25), 90},
			{centre(.5, 0, .25, 0, .25, .25), 270}, {centre(0, .5, 0, .25, .25, .25), 90}, {centre(0, .5, 0, .75, .25, .75), 270}, {centre(.5, 1, .25, 1, .25, .75), 90}},
		Message: {{centre(.5, 1, .5, .75, .75, .75), 0}, {centre(1, .5, .75, .5, .75, .75), 270}, {centre(1, .5, .75, .5, .75, .25), 270}, {centre(.5, 0, .5, .25, .75, .25), 180},
			{centre(.5, 0, .5, .25, .25, .25), 180}, {centre(0, .5, .25, .5, .25, .25), 90}, {centre(0, .5, .25, .5, .25, .75), 90}, {centre(.5, 1, .5, .75, .25, .75), 0}},
	}
	all := Zones(1, 0)
	if len(all) != 20 {
		t.Fatalf("%d zones", len(all))
	}
	area := 0.0
	for _, z := range all {
		w := tables[z.Kind][z.No-1]
		at := geom.Vec{}
		for _, a := range z.Areas {
			at = at.Add(a.Centroid().Scale(1 / float64(len(z.Areas))))
			if a.Area() <= 0 {
				t.Errorf("%s %d runs clockwise", z.Kind, z.No)
			}
			area += a.Area()
		}
		if at.Dist(w.at) > 1e-9 || z.TurnDeg != w.turn {
			t.Errorf("%s %d: at %v turned %g, want %v turned %g", z.Kind, z.No, at, z.TurnDeg, w.at, w.turn)
		}
	}
	close(t, "all but the square in the middle", area, 0.75, 1e-9)
}
