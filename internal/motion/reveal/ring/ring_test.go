package ring

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"testing"
)

// pats reads a state: leaves top first, ' behind those whose back shows.
func pats(t *testing.T, text string) (s State) {
	t.Helper()
	for i, p := range strings.Split(text, "|") {
		for _, f := range strings.Fields(p) {
			no, back := strings.CutSuffix(f, "'")
			var l Leaf
			if _, err := fmt.Sscan(no, &l.No); err != nil {
				t.Fatal(err)
			}
			l.Back = back
			s[i] = append(s[i], l)
		}
	}
	return s
}

// The rings as they are folded: three faces from ten triangles, six from nineteen.
const (
	three = "9 1 | 2 | 3 4' | 5' | 6' 7 | 8"
	six   = "2 1' | 5 6' 3 4' | 8 7' | 11 12' 9 10' | 14 13' | 17 18' 15 16'"
)

func graph(t *testing.T, text string) *Graph {
	t.Helper()
	g, err := GraphOf(pats(t, text))
	if err != nil {
		t.Fatal(err)
	}
	return g
}

// Both label maps come out of the foldings.
func TestLabelMaps(t *testing.T) {
	for _, c := range []struct {
		text, front, back string
	}{
		{three, "1 2 2 3 3 1 1 2 2", "3 3 1 1 2 2 3 3 1"},
		{six, "1 2 3 1 2 3 1 2 3 1 2 3 1 2 3 1 2 3", "4 4 5 5 6 6 4 4 5 5 6 6 4 4 5 5 6 6"},
	} {
		g := graph(t, c.text)
		var front, back []string
		for _, l := range g.Labels {
			front, back = append(front, fmt.Sprint(l[0])), append(back, fmt.Sprint(l[1]))
		}
		if f, b := strings.Join(front, " "), strings.Join(back, " "); f != c.front || b != c.back {
			t.Errorf("front %s, back %s", f, b)
		}
	}
	// Begun one leaf later the map is another one, as good.
	other := graph(t, "2 3' | 4' | 5' 6 | 7 | 8 9' | 1'")
	if slices.Equal(other.Labels, graph(t, three).Labels) || other.Faces != 3 {
		t.Errorf("begun one leaf later: %v", other.Labels)
	}
}

func TestGraphs(t *testing.T) {
	g := graph(t, three)
	if len(g.States) != 6 || g.Faces != 3 || len(g.Flexes) != 6 {
		t.Errorf("three faces: %d states, %d flexes", len(g.States), len(g.Flexes))
	}
	g = graph(t, six)
	if len(g.States) != 18 || g.Faces != 6 {
		t.Fatalf("six faces: %d states, %d faces", len(g.States), g.Faces)
	}
	pairs := map[[2]int]bool{}
	for i, s := range g.States {
		n := len(g.From(i))
		f, b := g.Front[i], g.Behind[i]
		pairs[[2]int{f, b}] = true
		main := f <= 3 && b <= 3
		thick := s.Thick()
		slices.Sort(thick[:])
		want, open := [Pats]int{1, 1, 1, 5, 5, 5}, 1
		if main {
			want, open = [Pats]int{2, 2, 2, 4, 4, 4}, 2
		}
		if thick != want || n != open {
			t.Errorf("%d in front of %d: pats %v, %d corner sets open", f, b, thick, n)
		}
		if g.Over[g.Over[i]] != i || g.Front[g.Over[i]] != b || g.Behind[g.Over[i]] != f {
			t.Errorf("state %d turned over", i)
		}
	}
	if len(pairs) != 18 {
		t.Errorf("%d pairs of faces", len(pairs))
	}
}

// Turned over, flexed and turned back a ring is where it came from: every flex can be undone
// so, at one of the two threes. That is a second way to compute each of them.
func TestFlexesAreUndoneTurnedOver(t *testing.T) {
	for _, text := range []string{three, six} {
		g := graph(t, text)
		for _, f := range g.Flexes {
			back := false
			for c := range 2 {
				s, ok := g.States[f.To].Over().Flex(c)
				back = back || ok && s.Over().Same(g.States[f.From])
			}
			if !back {
				t.Errorf("the flex from %d to %d is not undone", f.From, f.To)
			}
			if fault := g.States[f.To].Check(); fault != nil {
				t.Error(fault)
			}
		}
	}
}

// In every state each place is a piece of the strip which goes in over one joint and out over
// another, and the next place goes on where it ends: the paper hangs together.
func TestStatesHangTogether(t *testing.T) {
	for _, text := range []string{three, six} {
		g := graph(t, text)
		n := g.States[0].Leaves()
		for k, s := range g.States {
			end, begin := map[int]bool{}, map[int]bool{}
			for i, p := range s {
				placed, ok := p.Placed(n)
				if !ok {
					t.Fatalf("state %d, place %d is no pat: %v", k, i, p)
				}
				first, _ := p.run(n)
				last := (first+len(p)-2)%n + 1
				begin[first], end[last%n+1] = true, true
				for no, lies := range placed {
					if lies[0] == lies[1] || lies[1] == lies[2] || lies[0] == lies[2] {
						t.Errorf("leaf %d lies with two corners at one", no)
					}
				}
				// Which side shows follows from how its corners run.
				even := placed[p[0].No].Turns(p[0].No)
				for _, l := range p {
					if (placed[l.No].Turns(l.No) == even) != (l.Back == p[0].Back) {
						t.Errorf("state %d: leaves %d and %d of a pat show the wrong sides", k, p[0].No, l.No)
					}
				}
			}
			for no := range begin {
				if !end[no] {
					t.Errorf("state %d: nothing leads to leaf %d", k, no)
				}
			}
		}
	}
}

func TestTourShowsAll(t *testing.T) {
	g := graph(t, six)
	want := []int{1, 3, 2, 6, 3, 2, 1, 4, 2, 1, 3, 5}
	for _, from := range []int{0, g.Over[0]} {
		var walk []int
		at := -1
		for _, f := range g.Tour(from) {
			if at >= 0 && at != f.From {
				t.Fatal("the walk jumps")
			}
			walk, at = append(walk, g.Front[f.From]), f.To
		}
		same := false
		for range 2 {
			for k := range want {
				same = same || slices.Equal(walk, append(slices.Clone(want[k:]), want[:k]...))
			}
			slices.Reverse(want)
		}
		if !same {
			t.Errorf("the walk is %v", walk)
		}
	}
	if n := len(graph(t, three).Tour(0)); n != 3 {
		t.Errorf("three faces: a walk of %d flexes", n)
	}
}

// The shortest way against trying all ways of so many moves.
func TestPathsAreShortest(t *testing.T) {
	g := graph(t, six)
	reach := func(from, n int) map[int]bool {
		at := map[int]bool{from: true}
		for range n {
			next := map[int]bool{}
			for s := range at {
				next[g.Over[s]] = true
				for _, f := range g.From(s) {
					next[f.To] = true
				}
			}
			at = next
		}
		return at
	}
	for s := range g.States {
		for face := 1; face <= g.Faces; face++ {
			path := g.Path(s, face)
			end := s
			for _, m := range path {
				end = m.To
			}
			if g.Front[end] != face {
				t.Fatalf("from %d the way to face %d ends at %d", s, face, g.Front[end])
			}
			for n := range path {
				for q := range reach(s, n) {
					if g.Front[q] == face {
						t.Errorf("from %d face %d is %d moves away, not %d", s, face, n, len(path))
					}
				}
			}
		}
	}
	if w := g.Where(2, 5); len(w) != 0 && len(w) != 1 {
		t.Errorf("2 in front of 5 is seen in %d states", len(w))
	}
}

func TestWhatIsNoRing(t *testing.T) {
	for _, text := range []string{
		"1 | 2 | 3 | 4 | 5 | 6", "9 1 | 2 | 4' 3 | 5' | 6' 7 | 2", "9 3 | 2 | 1 4' | 5' | 6' 7 | 8",
	} {
		if _, err := GraphOf(pats(t, text)); err == nil {
			t.Errorf("%s passes for a ring", text)
		}
	}
}

func TestStrips(t *testing.T) {
	for _, c := range []struct{ w, side, ten, nineteen float64 }{{25, 28.868, 158.8, 288.7}, {30, 34.641, 190.5, 346.4}, {40, 46.188, 254.0, 461.9}, {50, 57.735, 317.5, 577.4}} {
		for _, x := range [][2]float64{{SideMM(c.w), c.side}, {LengthMM(c.w, 10), c.ten}, {LengthMM(c.w, 19), c.nineteen}, {WidthMM(SideMM(c.w)), c.w}} {
			if math.Abs(x[0]-x[1]) > 0.06 {
				t.Errorf("strip %g: %g, want %g", c.w, x[0], x[1])
			}
		}
	}
	if w := WidestMM(297, 19); w > 25.75 || w < 25.65 {
		t.Errorf("widest on A4 %g", w)
	}
	if Triangles(3) != 10 || Triangles(6) != 19 {
		t.Error("triangles")
	}
	for _, n := range []int{10, 19} {
		for w := 20.0; w < 60; w += 3 {
			j, err := Join(w, n, 297)
			if err != nil {
				t.Fatal(err)
			}
			sum := 1 - len(j.Pieces)
			for _, p := range j.Pieces {
				sum += p
				if LengthMM(w, p) > 297+1e-9 {
					t.Errorf("strip %g: a piece of %d is too long", w, p)
				}
			}
			if sum != n || len(j.AtLeaf) != len(j.Pieces)-1 || (LengthMM(w, n) <= 297) != (len(j.Pieces) == 1) {
				t.Errorf("strip %g, %d: %+v", w, n, j)
			}
		}
	}
	if _, err := Join(200, 10, 297); err == nil {
		t.Error("a strip too wide for three triangles is joined")
	}
	// From 52° by folding edge to crease: each time half as far off, to the other side.
	if v := Bisected(52, 3); math.Abs(v-61) > 1e-9 {
		t.Errorf("after three folds %g°", v)
	}
	if n := FoldsTo(52, 0.25); n != 5 {
		t.Errorf("%d folds come to a quarter of a degree", n)
	}
	rolled, zigzag := CreepMM(0.1, 19)
	if rolled < 20*zigzag {
		t.Errorf("rolled %g, zigzag %g", rolled, zigzag)
	}
}

func BenchmarkGraph(b *testing.B) {
	s := State{}
	for i, p := range [][]Leaf{{{2, false}, {1, true}}, {{5, false}, {6, true}, {3, false}, {4, true}}, {{8, false}, {7, true}}, {{11, false}, {12, true}, {9, false}, {10, true}}, {{14, false}, {13, true}}, {{17, false}, {18, true}, {15, false}, {16, true}}} {
		s[i] = p
	}
	for b.Loop() {
		if _, err := GraphOf(s); err != nil {
			b.Fatal(err)
		}
	}
}
