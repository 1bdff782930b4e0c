// Package glide predicts how a folded glider flies.
//
// In words: the wings are covered with small whirls that turn the air just so that
// none of it goes through the paper; what the whirls carry is the lift, and where it
// acts is the neutral point. When the centre of mass lies ahead of it, the glider
// puts itself right.
//
// So far: lift and neutral point at small angles. Rigid, thin wings in still air;
// expect the neutral point to within 3 % of the mean chord, since soft wings shift it.
// SI units. Axes: x aft from the nose, y to the right, z up.
package glide
