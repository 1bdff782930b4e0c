// Package leap is how a pleat throws a toy: three stiff parts and two springs pushing off
// a table, and the flight after it. It knows nothing of folds. SI units.
package leap
