package sheet_test

import (
	"math"
	"testing"

	"tussock/internal/sheet"
)

// A rounded size, or one with the wrong unit, is asked about; a known one is not.
func TestNearKnownSizes(t *testing.T) {
	for _, c := range []struct {
		w, h  float64
		unit  string
		first string
		meant string
		lying bool
	}{
		{8, 11, "in", "letter", "in", false},
		{21, 30, "cm", "a4", "cm", false},
		{30, 21, "cm", "a4", "cm", true},
		{8.5, 11, "in", "", "", false},
		{210, 297, "mm", "", "", false},
		{297, 210, "mm", "", "", false},
		{150, 150, "mm", "", "", false},
		{155, 150, "mm", "six-inch", "mm", false},
		{8.5, 11, "mm", "letter", "in", false},
		{21, 30, "mm", "a4", "cm", false},
		{21, 29.7, "in", "", "", false}, // a poster, as it stands
		{210, 297, "cm", "a4", "mm", false},
		{400, 500, "mm", "", "", false},
		{math.NaN(), 3, "mm", "", "", false},
	} {
		got := sheet.Near(c.w, c.h, c.unit)
		switch {
		case c.first == "" && len(got) > 0:
			t.Errorf("%v × %v %s is asked about: %+v", c.w, c.h, c.unit, got)
		case c.first != "" && (len(got) == 0 || got[0].ID != c.first || got[0].Unit != c.meant || got[0].Lying != c.lying):
			t.Errorf("%v × %v %s: %+v", c.w, c.h, c.unit, got)
		}
	}
}
