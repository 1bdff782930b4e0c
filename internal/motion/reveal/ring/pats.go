package ring

import (
	"fmt"
	"slices"
)

// Pats are in a hexagon.
const Pats = 6

// Leaf is one triangle of the strip, by the side of it that shows.
type Leaf struct {
	No   int  // from 1
	Back bool // the back of the strip shows
}

func (l Leaf) over() Leaf { return Leaf{l.No, !l.Back} }

// Pat is a stack of leaves between two joints, the top first. A pat of more than one leaf
// opens at one place: above it lies one pat, below it another.
type Pat []Leaf

// State is a ring that lies flat: its pats in the order of the strip.
type State [Pats]Pat

// over is a pat turned over.
func (p Pat) over() Pat {
	out := make(Pat, len(p))
	for i, l := range p {
		out[len(p)-1-i] = l.over()
	}
	return out
}

func joined(a, b Pat) Pat { return append(slices.Clone(a), b...) }

// run tells whether leaves follow one another along the strip, and where they begin: leaf
// numbers of a ring of n start again after n.
func (p Pat) run(n int) (first int, ok bool) {
	has := map[int]bool{}
	for _, l := range p {
		has[l.No] = true
	}
	if len(has) != len(p) || len(p) > n {
		return 0, false
	}
	for _, l := range p {
		before := (l.No+n-2)%n + 1
		if has[before] && len(p) < n {
			continue
		}
		first, ok = l.No, true
		for k := range p {
			if !has[(l.No+k-1)%n+1] {
				return 0, false
			}
		}
		return first, ok
	}
	return 0, false
}

// Slot is after how many leaves from the top a pat opens: both parts are runs of the strip,
// and turn the strip alike. A part of the strip of k leaves turns it by a third when k leaves
// 1 over three, by two when it leaves 2: parts that together turn by one turn by two each,
// and the other way. 0 where there is none.
func (p Pat) Slot(n int) int {
	for k := 1; k < len(p); k++ {
		_, above := p[:k].run(n)
		_, below := p[k:].run(n)
		if above && below && k%3 == (len(p)-k)%3 && k%3 != 0 {
			return k
		}
	}
	return 0
}

// Leaves are how many a ring has.
func (s State) Leaves() (n int) {
	for _, p := range s {
		n += len(p)
	}
	return n
}

// Over is the state turned over.
func (s State) Over() (out State) {
	for i, p := range s {
		out[Pats-1-i] = p.over()
	}
	return out
}

// Turned counts pats from another one.
func (s State) Turned(by int) (out State) {
	for i := range s {
		out[i] = s[(i+by)%Pats]
	}
	return out
}

// Opens tells whether the corners of one of the two threes open: 0 is that whose thick pats
// are the first, third and fifth.
func (s State) Opens(corners int) bool {
	n := s.Leaves()
	for i := corners; i < Pats; i += 2 {
		if s[i].Slot(n) == 0 {
			return false
		}
	}
	return true
}

// lowFirst tells whether the lower part of a pat comes first along the strip.
func (p Pat) lowFirst(n int) bool {
	whole, _ := p.run(n)
	low, _ := p[p.Slot(n):].run(n)
	return low == whole
}

// along tells whether places are counted as the strip runs, or against it, as in a ring that
// was turned over.
func (s State) along(n int) bool {
	first, _ := s[0].run(n)
	next, _ := s[1].run(n)
	return (first+len(s[0])-1)%n+1 == next
}

// Flex pinches the ring at a three of corners and opens it: pats [a|b] c [d|e] f [g|h] i
// become ^a [e|^c] ^d [h|^f] ^g [b|^i], ^ being turned over, where the lower parts hang on the
// place before; where they hang on the next, ^a [b|^c] ^d [e|^f] ^g [h|^i], the mirror image.
// ok is false where it does not open. The pats count on from the same place.
func (s State) Flex(corners int) (out State, ok bool) {
	if !s.Opens(corners) {
		return s, false
	}
	n := s.Leaves()
	q := s.Turned(corners)
	before := q[0].lowFirst(n) == s.along(n)
	for i := range 3 {
		p, thin := q[2*i], q[2*i+1]
		k := p.Slot(n)
		if p.lowFirst(n) == s.along(n) != before {
			return s, false
		}
		low := p[k:]
		if before {
			next := q[(2*i+2)%Pats]
			low = next[next.Slot(n):]
		}
		out[2*i], out[2*i+1] = p[:k].over(), joined(low, thin.over())
	}
	return out.Turned(Pats - corners), true
}

// Front are the leaf sides that show, by pat; Back those behind, as one looks at the front.
func (s State) Front() (out [Pats]Leaf) {
	for i, p := range s {
		out[i] = p[0]
	}
	return out
}

// Back are the leaf sides that show behind, by pat of the front.
func (s State) Back() (out [Pats]Leaf) {
	for i, p := range s {
		out[i] = p[len(p)-1].over()
	}
	return out
}

// key names a state, whichever pat is counted first.
func (s State) key() string {
	best := ""
	for by := range Pats {
		if k := fmt.Sprint(s.Turned(by)); best == "" || k < best {
			best = k
		}
	}
	return best
}

// Same tells whether two states are one, whichever pat is counted first.
func (s State) Same(t State) bool { return s.key() == t.key() }

// Thick are how many leaves each pat has.
func (s State) Thick() (out [Pats]int) {
	for i, p := range s {
		out[i] = len(p)
	}
	return out
}

// Check tells what keeps a ring from being one that flexes; nil when nothing does.
func (s State) Check() error {
	n := s.Leaves()
	if n%9 != 0 || n == 0 {
		return fmt.Errorf("a ring of %d leaves: three faces need 9, six need 18", n)
	}
	seen := map[int]bool{}
	for i, p := range s {
		if _, ok := p.run(n); !ok {
			return fmt.Errorf("the leaves of place %d do not follow one another along the strip", i+1)
		}
		for _, l := range p {
			if l.No < 1 || l.No > n || seen[l.No] {
				return fmt.Errorf("leaf %d is there twice, or not of this ring", l.No)
			}
			seen[l.No] = true
		}
	}
	if !s.Opens(0) && !s.Opens(1) {
		return fmt.Errorf("no corner opens: every second place must be loose")
	}
	return nil
}
