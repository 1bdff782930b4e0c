// Package closure finds how paper moves when its pieces stay flat and stiff: the fold
// angles at which every vertex and every loop of pieces closes.
//
// The unknowns are fold angles, in radians, positive for a mountain as one sees the front
// of the sheet; flat-folded is π or -π. Going once round a vertex the turns about its
// creases must cancel (the closure of a spherical linkage); round a hole, a slit or a
// glued place the shifts must cancel as well. What is asked is driven from a pose that
// closes to one that closes, frame by frame, so that the paper gets there on a way on
// which it is never torn. Layers have no thickness here.
package closure
