// Package layers finds which piece of folded paper lies on which, when the
// folding itself does not force it.
//
// In words: pieces of paper lie in known places in the plane and hang together
// at hinges. Paper cannot pass through paper. That gives four kinds of rule,
// and no others:
//
//   - a piece crossed by a hinge lies above both pieces of the hinge or below
//     both;
//   - where two hinges lie on one line, two unfolded ones keep their order
//     across it, an unfolded one is never between the two pieces of a folded
//     one, and two folded ones on the same side are nested or apart, never
//     interleaved (the product of their four orders is +1);
//   - three pieces with a common spot do not lie in a ring;
//   - what a step says: this above that, this crease a mountain.
//
// The solver merges all orders that must be equal (signed union-find), draws
// the conclusions of what is known, and tries the rest, the preferred way first.
package layers
