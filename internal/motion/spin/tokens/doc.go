// Package tokens is toys that balance on a point: some spin on a tip of their own, some
// hang level on a pin.
//
// In words: the folded toy is weighed as it stands; what counts is how far its centre of
// mass lies beside the point, and how deep below it or how high above. Beside it leans;
// above it only spin holds it up. Lengths are mm at the edges, SI in the physics (token).
package tokens
