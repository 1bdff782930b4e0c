// Package prepare gets the sheet that a toy wants out of the sheet that lies there.
//
// In words: fold the lower edge to the left edge, cut along what lies on top, open,
// and the sheet is square. Every way is a short pattern of its own, carried out by
// the fold engine on the sheet at hand: its pictures, the piece that comes out, the
// creases that stay in it and what falls off are computed, not drawn by hand.
//
// Lengths mm, angles degrees. Times and the errors of hands are estimates, and are
// called so: see handMM and the other constants of errors.go.
package prepare
