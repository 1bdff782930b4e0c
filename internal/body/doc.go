// Package body weighs and measures the folded toy: how many layers lie where,
// what it weighs, where its centre of mass is, how it stands in the round when
// its wings are opened, and how it resists turning.
//
// In words: lay the folded toy on a light table. Where more layers lie it is
// darker; count them and you have the layer map. Hang it from a thread at any
// corner and the plumb line runs through the centre of mass.
//
// Lengths mm, masses g, inertia g mm², angles degrees at the edges.
package body
