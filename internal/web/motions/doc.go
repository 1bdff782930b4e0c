// Package motions answers how toys move: predictions, sweeps, searches, the clinic.
package motions
