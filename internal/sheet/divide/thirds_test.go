package divide_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"tussock/internal/sheet/divide"
)

// Folds moved as told leave three equal widths, whatever they were; equal ones
// stay; and the mirrored edge moves mirrored.
func TestThirds(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 3))
	for range 1000 {
		a, b, c := 50+50*r.Float64(), 50+50*r.Float64(), 50+50*r.Float64()
		first, second := divide.Thirds(a, b, c)
		x, y, z := a+first, b-first+second, c-second
		if math.Abs(x-y) > 1e-9 || math.Abs(y-z) > 1e-9 || math.Abs(x+y+z-a-b-c) > 1e-9 {
			t.Fatalf("%v, %v, %v become %v, %v, %v", a, b, c, x, y, z)
		}
		if f, s := divide.Thirds(c, b, a); math.Abs(f+second) > 1e-9 || math.Abs(s+first) > 1e-9 {
			t.Fatalf("mirrored: %v, %v, not %v, %v", f, s, -second, -first)
		}
	}
	if f, s := divide.Thirds(99, 99, 99); f != 0 || s != 0 {
		t.Errorf("thirds move by %v and %v", f, s)
	}
}
