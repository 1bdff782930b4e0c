package divide_test

import (
	"errors"
	"math"
	"strings"
	"testing"

	"tussock/internal/given"
	"tussock/internal/say"
	"tussock/internal/sheet/divide"
)

// What is asked becomes a fraction of the edge or an angle; what nobody can fold is
// refused with what can.
func TestWanted(t *testing.T) {
	for _, c := range []struct {
		w     divide.Wanted
		parts int
		want  float64
		fix   string
	}{
		{divide.Wanted{What: "fraction", Part: 1, Of: 3}, 3, 1.0 / 3, ""},
		{divide.Wanted{What: "fraction", Part: 2, Of: 5}, 0, 0.4, ""},
		{divide.Wanted{What: "fraction", Part: 3, Of: 3}, 0, 0, "between 0 and 1"},
		{divide.Wanted{What: "fraction", Part: 1, Of: 0}, 0, 0, "between 0 and 1"},
		{divide.Wanted{What: "fraction", Part: 500, Of: 1001}, 0, 0, "between 0 and 1"},
		{divide.Wanted{What: "parts", Part: 7}, 7, 1.0 / 7, ""},
		{divide.Wanted{What: "parts", Part: 2.5}, 0, 0, "2 to 33"},
		{divide.Wanted{What: "parts", Part: 34}, 34, 0, "2 to 33"},
		{divide.Wanted{What: "length", Part: 99}, 0, 1.0 / 3, ""},
		{divide.Wanted{What: "length", Part: 300}, 0, 0, "which has 297 mm"},
		{divide.Wanted{What: "length", Part: 1}, 0, 0, "which has 297 mm"},
		{divide.Wanted{What: "angle", Part: 60}, 0, 60, ""},
		{divide.Wanted{What: "angle", Part: 90}, 0, 0, "0.5 to 89.5°"},
		{divide.Wanted{What: "angle", Part: math.NaN()}, 0, 0, "0.5 to 89.5°"},
	} {
		got, err := c.w.Target(297)
		var g *given.Error
		switch {
		case c.fix == "" && (err != nil || math.Abs(got-c.want) > 1e-12):
			t.Errorf("%+v: %v, %v", c.w, got, err)
		case c.fix != "" && (!errors.As(err, &g) || g.Field != "part" || !strings.Contains(say.In(say.Metric, g.Error()), c.fix)):
			t.Errorf("%+v: %v", c.w, err)
		}
		if n := c.w.Parts(); n != c.parts {
			t.Errorf("%+v: %d parts", c.w, n)
		}
	}
	if c, marks := divide.Equal(1, 297, 0.3, nil); c != nil || marks != nil {
		t.Error("one part needs no marks")
	}
	// An odd number corrects itself, an even one is found by halving; all marks are there.
	for _, n := range []int{5, 8, 9} {
		c, marks := divide.Equal(n, 297, 0.3, divide.Fraction(210, 297, 1/float64(n)))
		if (c != nil) != (n%2 == 1) || len(marks) != n-1 {
			t.Errorf("%d parts: %v, %d marks", n, c, len(marks))
		}
	}
}
