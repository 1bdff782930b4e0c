// Package air is what carries a glider: a vortex lattice over its wings, keel and fins.
//
// In words: the wings are covered with small whirls that turn the air just so that none
// of it goes through the paper; what the whirls carry is the lift, and where it acts is
// the neutral point. All flows that a flight asks for are solved once.
//
// Law: horseshoe vortices after Kutta and Joukowski, three-quarter-chord rule; linear, for
// thin rigid wings at small angles. SI units; x aft from the nose, y to the right, z up.
package air
