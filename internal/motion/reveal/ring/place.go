package ring

// Corner of a place in the hexagon.
type Corner int

// Where the corners of a leaf lie: at the middle, or at the rim, at the joint to the place
// before and at that to the next.
const (
	Middle Corner = iota
	Before
	After
)

// Lies is how a leaf lies in its place: where each of its corners is. Leaf k has the corners
// k, k+1 and k+2 of the strip, which run from edge to edge in zigzag; its joint to the next
// leaf joins the last two.
type Lies [3]Corner

// Placed is how every leaf of a place lies, by leaf number. The strip comes in over the joint
// to the place before and goes out over that to the next; both meet in the middle, so that
// corner of a pat which they share is the middle one. ok is false for what is no pat.
func (p Pat) Placed(n int) (out map[int]Lies, ok bool) {
	first, ok := p.run(n)
	if !ok {
		return nil, false
	}
	// Corners of the first leaf by which the later ones lie: leaf k+1 shares the corners
	// 1 and 2 of leaf k, as its 0 and 1, and its third lies on the one left over.
	on := [3]int{0, 1, 2} // on which corner of the first leaf each corner lies
	all := [][3]int{on}
	for range len(p) - 1 {
		on = [3]int{on[1], on[2], on[0]}
		all = append(all, on)
	}
	// In over corners 0 and 1 of the first, out over 1 and 2 of the last.
	in, outs := [2]int{0, 1}, [2]int{on[1], on[2]}
	middle := -1
	for _, a := range in {
		for _, b := range outs {
			if a == b {
				if middle >= 0 {
					return nil, false // in and out over the same joint
				}
				middle = a
			}
		}
	}
	if middle < 0 {
		return nil, false
	}
	where := map[int]Corner{middle: Middle}
	for _, a := range in {
		if a != middle {
			where[a] = Before
		}
	}
	for _, b := range outs {
		if b != middle {
			where[b] = After
		}
	}
	out = map[int]Lies{}
	for k, on := range all {
		out[(first+k-1)%n+1] = Lies{where[on[0]], where[on[1]], where[on[2]]}
	}
	return out, true
}

// Placed is how every leaf of a place lies, in a state: Before and After are the joints to the
// places counted before and after it.
func (s State) Placed(place int) (map[int]Lies, bool) {
	n := s.Leaves()
	out, ok := s[place].Placed(n)
	if !ok || s.along(n) {
		return out, ok
	}
	swap := [3]Corner{Middle, After, Before}
	for no, l := range out {
		out[no] = Lies{swap[l[0]], swap[l[1]], swap[l[2]]}
	}
	return out, true
}

// Turns tells whether a leaf shows its front or its back to whoever sees the places run
// counter-clockwise, as its corners lie.
func (l Lies) Turns(no int) (back bool) {
	// The corners of an odd leaf run counter-clockwise on the front of a strip that begins at
	// its lower edge, those of an even one clockwise. Middle, Before, After run
	// counter-clockwise in the hexagon.
	even := l == Lies{Middle, Before, After} || l == Lies{Before, After, Middle} || l == Lies{After, Middle, Before}
	return even != startsCCW(no)
}

// startsCCW: leaf 1 has two corners at the lower edge and one above, in the order lower,
// upper, lower when the strip begins at a lower corner: clockwise.
func startsCCW(no int) bool { return no%2 == 0 }
