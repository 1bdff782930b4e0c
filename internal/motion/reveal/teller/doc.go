// Package teller is the laws of fortune tellers: where their zones lie on the sheet, how
// they open, which fingers fit, and what comes up how often. Lengths are mm, angles radians
// where nothing else is said.
package teller
