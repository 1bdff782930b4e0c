// Package hop predicts how a toy with a pleat at its rear leaps: from what the pleat
// stores to take-off, flight and landing.
//
// Along the toy the body ends at the hip, the first crease. From there the middle leads
// under the body to the second crease, the catch, which rests on the table; from the
// catch the foot leads back. Pressed flat and let go, both creases open and push the hip
// up and towards the side of the catch.
//
// SI units inside; mm, g and degrees at the edges. x is towards the catch's side, y up,
// angles counter-clockwise: a nose that rises turns positive. A toy whose catch lies
// behind the hip leaps backward: the same motion mirrored.
//
// Laws: creases as bent strips (package sheet), rigid bodies on a table with dry
// friction, quadratic air drag. Magnitudes are good to a factor of two, comparisons
// between set-ups to a quarter; hops of the person's own narrow that down.
package hop
