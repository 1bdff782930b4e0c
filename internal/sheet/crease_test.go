package sheet_test

import (
	"testing"

	"tussock/internal/sheet"
)

// The table of rest openings by paper, layers and radius, computed from the law.
func TestRestOpening(t *testing.T) {
	radii := []float64{0.1, 0.3, 0.5, 1, 1.5, 2}
	for _, p := range []struct {
		mm   float64
		want [6][3]float64
	}{
		{0.080, [6][3]float64{{25, 34, 46}, {40, 49, 60}, {55, 63, 74}, {90, 98, 108}, {121, 128, 136}, {148, 153, 159}}},
		{0.104, [6][3]float64{{24, 33, 44}, {35, 44, 55}, {46, 55, 66}, {74, 82, 93}, {100, 107, 117}, {123, 130, 138}}},
		{0.195, [6][3]float64{{21, 30, 42}, {27, 36, 48}, {33, 42, 54}, {48, 57, 68}, {63, 71, 82}, {77, 86, 96}}},
	} {
		for i, r := range radii {
			for k, n := range []int{1, 4, 8} {
				close(t, "rest opening", sheet.RestOpening(n, p.mm, r), p.want[i][k], 1)
			}
		}
	}
	// Limits: nothing folded, a bend so wide that nothing stays, and order.
	if sheet.RestOpening(0, 0.1, 0.3) != 0 || sheet.RestOpening(1, 0.1, 50) != 180 {
		t.Error("limits")
	}
	for _, pair := range [][2]string{{"sharp", "firm"}, {"firm", "soft"}, {"soft", "bend"}} {
		if sheet.CreaseRadius(pair[0]) >= sheet.CreaseRadius(pair[1]) {
			t.Errorf("%v", pair)
		}
	}
}
