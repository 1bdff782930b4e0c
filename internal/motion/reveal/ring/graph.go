package ring

import (
	"fmt"
	"slices"
)

// Graph is all that a ring can show: its states as they lie with either side up, and the
// flexes that lead from one to another.
type Graph struct {
	Faces  int
	States []State
	Flexes []Flex
	// Labels are the faces that leaf sides belong to, from 1: by leaf from 0, its front and
	// its back.
	Labels [][2]int
	Front  []int // the face that each state shows
	Behind []int // the face behind
	Over   []int // the state that each is when it is turned over
}

// Flex leads from a state to another, by a three of corners.
type Flex struct {
	From, To int
	Corners  int // 0 or 1, as the state counts its pats
}

// mostStates bounds what is looked for; six faces have 18.
const mostStates = 400

// GraphOf finds every state that a ring can be flexed to. The error says what keeps it from
// being a flexagon.
func GraphOf(s State) (*Graph, error) {
	if err := s.Check(); err != nil {
		return nil, err
	}
	g := &Graph{Faces: s.Leaves() / 3}
	index := map[string]int{}
	add := func(t State) int {
		k := t.key()
		i, there := index[k]
		if !there {
			i = len(g.States)
			index[k] = i
			g.States = append(g.States, t)
		}
		return i
	}
	add(s)
	for i := 0; i < len(g.States) && len(g.States) < mostStates; i++ {
		g.Over = append(g.Over, add(g.States[i].Over()))
		for c := range 2 {
			if t, ok := g.States[i].Flex(c); ok {
				g.Flexes = append(g.Flexes, Flex{i, add(t), c})
			}
		}
	}
	return g, g.label()
}

// label puts the same number on all leaf sides that show together: faces are counted as they
// are met along the front of the strip, then along its back.
func (g *Graph) label() error {
	n := g.States[0].Leaves()
	parent := map[Leaf]Leaf{}
	var find func(Leaf) Leaf
	find = func(l Leaf) Leaf {
		if p, there := parent[l]; there && p != l {
			return find(p)
		}
		return l
	}
	for _, s := range g.States {
		front := s.Front()
		for _, l := range front[1:] {
			if a, b := find(l), find(front[0]); a != b {
				parent[a] = b
			}
		}
	}
	g.Labels = make([][2]int, n)
	faces, count := map[Leaf]int{}, map[int]int{}
	for side, back := range []bool{false, true} {
		for no := 1; no <= n; no++ {
			root := find(Leaf{no, back})
			if faces[root] == 0 {
				faces[root] = len(faces) + 1
			}
			g.Labels[no-1][side] = faces[root]
			count[faces[root]]++
		}
	}
	for f, k := range count {
		if k != Pats {
			return fmt.Errorf("face %d has %d triangles: it mixes with another. Take it apart and fold again", f, k)
		}
	}
	g.Faces = len(faces)
	for _, s := range g.States {
		g.Front = append(g.Front, g.Label(s[0][0]))
		last := s[0][len(s[0])-1]
		g.Behind = append(g.Behind, g.Label(last.over()))
	}
	return nil
}

// Label is the face of a leaf side.
func (g *Graph) Label(l Leaf) int {
	if l.Back {
		return g.Labels[l.No-1][1]
	}
	return g.Labels[l.No-1][0]
}

// From are the flexes that a state offers.
func (g *Graph) From(state int) (out []Flex) {
	for _, f := range g.Flexes {
		if f.From == state {
			out = append(out, f)
		}
	}
	return out
}

// Where are the states in which one sees a face in front and another behind.
func (g *Graph) Where(front, behind int) (out []int) {
	for i := range g.States {
		if g.Front[i] == front && g.Behind[i] == behind {
			out = append(out, i)
		}
	}
	return out
}

// Move is one thing to do: flex at a three of corners, or turn it over.
type Move struct {
	Over    bool
	Corners int
	To      int
}

// Path is the shortest way from a state to one that shows a face in front: flexes and
// turning over count alike. nil when it shows it already.
func (g *Graph) Path(from, face int) []Move {
	type step struct {
		state int
		by    []Move
	}
	seen := map[int]bool{from: true}
	for queue := []step{{state: from}}; len(queue) > 0; queue = queue[1:] {
		at := queue[0]
		if g.Front[at.state] == face {
			return at.by
		}
		moves := []Move{}
		for _, f := range g.From(at.state) {
			moves = append(moves, Move{Corners: f.Corners, To: f.To})
		}
		moves = append(moves, Move{Over: true, To: g.Over[at.state]})
		for _, m := range moves {
			if !seen[m.To] {
				seen[m.To] = true
				queue = append(queue, step{m.To, append(slices.Clone(at.by), m)})
			}
		}
	}
	return nil
}

// Tour is the walk that shows all faces: flex at the same corner as long as it opens, else
// move on to the next. It ends where it would go the same way again.
func (g *Graph) Tour(from int) []Flex {
	s, at, state := g.States[from], 0, from
	var out []Flex
	for len(out) <= len(g.Flexes) {
		t, ok := s.Flex(at)
		if !ok {
			at = 1 - at
			if t, ok = s.Flex(at); !ok {
				return out
			}
		}
		to := slices.IndexFunc(g.States, t.Same)
		step := Flex{state, to, g.corner(state, to, at)}
		if i := slices.Index(out, step); i >= 0 {
			return out[i:]
		}
		out = append(out, step)
		s, state = t, to
	}
	return out
}

// corner is the three of corners by which a kept state leads to another; the walked one may
// count its pats from elsewhere.
func (g *Graph) corner(from, to, usual int) int {
	for _, f := range g.From(from) {
		if f.To == to {
			return f.Corners
		}
	}
	return usual
}
