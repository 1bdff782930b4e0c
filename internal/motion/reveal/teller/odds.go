package teller

import (
	"fmt"
	"slices"
)

// Numbers stand on eight half flaps, clockwise as one looks at the number side, from the
// right half of the upper flap. Messages are behind the numbers, by the same places.
const Halves = 8

// Words are spelled from the four outer panels.
const Panels = 4

// Side is what an opened teller shows.
type Side int

// The two ways that it opens.
const (
	A Side = iota // left and right pulled apart: the upper and the lower flap show
	B             // up and down pulled apart: the right and the left flap show
)

// Shown tells which of the two openings shows a half.
func Shown(half int) Side {
	if m := half % 4; m == 0 || m == 3 {
		return A
	}
	return B
}

// String is the opening in words.
func (s Side) String() string {
	if s == A {
		return "left and right"
	}
	return "up and down"
}

// After is what a closed teller shows after some moves: they open it the one way and the
// other in turn, beginning with A.
func After(moves int) Side {
	if moves%2 != 0 {
		return A
	}
	return B
}

// Moved is what an open teller shows after so many more moves.
func (s Side) Moved(moves int) Side { return Side((int(s) + moves) & 1) }

// Visible are the halves that a side shows.
func (s Side) Visible() []int {
	if s == A {
		return []int{0, 3, 4, 7}
	}
	return []int{1, 2, 5, 6}
}

// Game is what is written, as far as chance goes: moves for each word, the numbers, and how
// often a number is chosen and counted before the last choice is opened.
type Game struct {
	Words   [Panels]int
	Numbers [Halves]int
	Rounds  int
}

// Start is the chance of each side after the word, all words as likely.
func (g Game) Start() (p [2]float64) {
	for _, w := range g.Words {
		p[After(w)] += 1.0 / Panels
	}
	return p
}

// Odds are the chances of all messages: the exact chain of a choice among four for every
// round, all of them as likely, and a last one that is opened.
func (g Game) Odds() (out [Halves]float64) {
	p := g.Start()
	for range g.Rounds {
		var next [2]float64
		for s, chance := range p {
			for _, h := range Side(s).Visible() {
				next[Side(s).Moved(g.Numbers[h])] += chance / 4
			}
		}
		p = next
	}
	for s, chance := range p {
		for _, h := range Side(s).Visible() {
			out[h] = chance / 4
		}
	}
	return out
}

// Rarest is the least chance, and the most.
func Rarest(odds [Halves]float64) (least, most float64) {
	return slices.Min(odds[:]), slices.Max(odds[:])
}

// Even is a chance of one in eight for each; so near is as good as that.
const Even, near = 1.0 / Halves, 1e-9

// Fair tells whether every message is as likely as any other.
func Fair(odds [Halves]float64) bool {
	least, most := Rarest(odds)
	return most-least < near
}

// Never are the messages that never come up.
func Never(odds [Halves]float64) (out []int) {
	for h, p := range odds {
		if p < near {
			out = append(out, h)
		}
	}
	return out
}

// OneParity tells whether all words open the same side, and which.
func (g Game) OneParity() (Side, bool) {
	s := After(g.Words[0])
	for _, w := range g.Words {
		if After(w) != s {
			return 0, false
		}
	}
	return s, true
}

// odd counts the odd numbers that a side shows.
func (g Game) odd(s Side) (n int) {
	for _, h := range s.Visible() {
		n += g.Numbers[h] & 1
	}
	return n
}

// Change is another number for a half.
type Change struct{ Half, From, To int }

// fairOdd is how many of four numbers are odd in a fair numbering: a side then is left and
// kept as likely.
const fairOdd = 2

// MostNumber is the highest number that is proposed: what fits between thumb and patience.
const MostNumber = 9

// FairNumbers are the fewest changes after which every message is as likely, whatever the
// words, when a number is counted at least once: two odd numbers on each side. Numbers that
// are free are preferred, the nearest first.
func (g Game) FairNumbers() []Change {
	var out []Change
	used := map[int]bool{}
	for _, v := range g.Numbers {
		used[v] = true
	}
	for _, s := range []Side{A, B} {
		over := g.odd(s) - fairOdd
		for _, h := range s.Visible() {
			v := g.Numbers[h]
			if over == 0 || over > 0 != (v&1 != 0) {
				continue
			}
			to := nearest(v, used)
			used[to] = true
			out = append(out, Change{h, v, to})
			if over > 0 {
				over--
			} else {
				over++
			}
		}
	}
	return swapped(out)
}

// swapped gives numbers that changed parity on both sides to each other: then all that were
// there stay in use.
func swapped(all []Change) []Change {
	var odd, even []int
	for i, c := range all {
		if c.From&1 != 0 {
			odd = append(odd, i)
		} else {
			even = append(even, i)
		}
	}
	for k := range min(len(odd), len(even)) {
		a, b := odd[k], even[k]
		all[a].To, all[b].To = all[b].From, all[a].From
	}
	return all
}

// nearest is the free number of the other parity that is nearest, or the nearest at all.
func nearest(v int, used map[int]bool) int {
	for _, free := range []bool{true, false} {
		for d := 1; d <= MostNumber+v; d += 2 {
			for _, to := range []int{v - d, v + d} {
				if to >= 1 && to <= MostNumber && !(free && used[to]) {
					return to
				}
			}
		}
	}
	return 1 + v&1
}

// Play is a game as it was written down: the panel whose word was spelled, the halves whose
// numbers were counted, and the half that was opened.
type Play struct {
	Panel  int
	Chosen []int
	Opened int
}

// Slip is what is wrong in a play: at the word 0, at the choice from 1.
type Slip struct {
	At       int
	Half     int
	Showed   Side  // what lay open then
	Could    []int // halves that could be chosen
	TooShort bool  // fewer numbers were counted than the game has rounds
}

// Walk follows a play move by move: what lay open at each choice, the opened half last. The
// slip is the first choice of what did not show; nil when all could be so.
func (g Game) Walk(p Play) (sides []Side, slip *Slip) {
	s := After(g.Words[p.Panel])
	choices := append(slices.Clone(p.Chosen), p.Opened)
	for i, h := range choices {
		sides = append(sides, s)
		if !slices.Contains(s.Visible(), h) && slip == nil {
			slip = &Slip{At: i + 1, Half: h, Showed: s, Could: s.Visible()}
		}
		if i < len(p.Chosen) {
			s = s.Moved(g.Numbers[h])
		}
	}
	if slip == nil && len(p.Chosen) < g.Rounds {
		slip = &Slip{At: len(p.Chosen) + 1, Half: p.Opened, Showed: s, Could: s.Visible(), TooShort: true}
	}
	return sides, slip
}

// Check refuses games that mean nothing.
func (g Game) Check() error {
	for i, n := range g.Numbers {
		if n < 0 {
			return fmt.Errorf("number %d is %d: count from 0", i+1, n)
		}
	}
	return nil
}
