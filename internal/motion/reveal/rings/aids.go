package rings

import (
	"fmt"

	"tussock/internal/motion"
	"tussock/internal/motion/reveal/ring"
	"tussock/internal/sequence"
)

// aids help with a strip: its joints to be pressed, its triangles to be numbered, and what to
// look at before it is glued.
func aids(r *sequence.Replay) map[int]motion.Aid {
	g, err := Of(r)
	if err != nil {
		return nil
	}
	press := motion.Aid{Kind: "list", Title: "Press every joint", Done: "pressed", Says: "Zigzag the strip, never roll it, and go over each joint with a nail, on both sides. Then count the triangles, trim, and count again."}
	number := motion.Aid{Kind: "list", Title: "Number the triangles", Done: "numbered", Says: "Or print the strip, with its numbers on both sides. They are worked out from how this ring is folded."}
	for k := range g.Leaves {
		press.Items = append(press.Items, motion.AidItem{Label: fmt.Sprintf("Joint %d, between triangles %d and %d", k+1, k+1, k+2)})
		number.Items = append(number.Items, motion.AidItem{Label: fmt.Sprintf("Triangle %d: %s in front, %s behind", k+1, g.label(k, false), g.label(k, true))})
	}
	number.Items = append(number.Items, motion.AidItem{Label: fmt.Sprintf("Triangle %d: %s in front, %s behind", g.Leaves+1, g.label(g.Leaves, false), g.label(g.Leaves, true))})
	before := motion.Aid{Kind: "list", Title: "Before you glue", Done: "as they should be", Says: "Look at all three. Where one is not so, the line below says what to fold again."}
	items, redo := g.checked()
	for i, text := range items {
		before.Items = append(before.Items, motion.AidItem{Label: text, Says: redo[i]})
	}
	out := map[int]motion.Aid{g.glued: before.Whole()}
	cuts := 0
	for i := g.glued - 1; i > 0; i-- {
		switch op := r.Steps[i-1].Op; {
		case op == sequence.OpCut && cuts == 0:
			out[i] = number.Whole()
			cuts++
		case op == sequence.OpCrease:
			out[i] = press.Whole()
			return out
		}
	}
	return out
}

// label is the number that a side of a triangle carries, from 0; "nothing" for those that are
// glued.
func (g *Geometry) label(k int, back bool) string {
	l := ring.Leaf{No: k + 1, Back: back}
	switch {
	case l == g.hidden || l.No == g.instead.No && l != g.instead:
		return "nothing"
	case l == g.instead:
		l = g.hidden
	}
	return fmt.Sprint(g.Graph.Label(l))
}
