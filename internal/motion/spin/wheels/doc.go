// Package wheels is toys that air turns: turbines on a skewer and pinwheels, blown, in a wind
// or dropped.
//
// In words: the folded toy is weighed blade by blade; how broad its blades are, and how far
// out, is read off the paper. How far they lie over is set with a protractor. The laws of
// package wheel then say how fast it turns, how it starts, and how it falls.
//
// Lengths mm, masses g, angles degrees here; SI goes into the laws.
package wheels
