// Package glide predicts how a folded glider flies.
//
// In words: package craft reads the toy off its folds, package air says what carries it.
// Here that becomes tables over the full angle, trims, flights with six degrees of
// freedom, their scatter, numbers for people, the clinic, and the description of the way
// of moving.
//
// Rigid, thin wings in still air. SI units. Axes: x aft from the nose, y to the right, z up.
package glide
