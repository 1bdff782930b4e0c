package web_test

import (
	"fmt"
	"testing"

	"tussock/internal/shelf"
)

// Every knob at both ends of its range is answered: with the toy, or with why it cannot
// be, and never with a fault of the program.
func TestEndsOfRanges(t *testing.T) {
	if testing.Short() {
		t.Skip("nothing here runs side by side: races have nothing to find")
	}
	c := serve(t, false)
	all, err := shelf.All()
	if err != nil {
		t.Fatal(err)
	}
	for _, p := range all {
		for _, k := range p.Knobs {
			if k.Plain {
				continue
			}
			for _, v := range []float64{k.Min, k.Max} {
				set := fmt.Sprintf(`{"sheet":{"width":%v,"height":%v,"unit":"mm","gsm":80,"thickness_mm":0.1},"knobs":{%q:%v}}`, p.WidthMM, p.HeightMM, k.Name, v)
				status, b := c.send("POST", "/patterns/"+p.ID+"/replay", set)
				if status != 200 {
					t.Errorf("%s with %s %v: %d %.200s", p.ID, k.Name, v, status, b)
				}
				if status, b = c.send("POST", "/patterns/"+p.ID+"/prediction", set); status >= 500 {
					t.Errorf("%s predicted with %s %v: %d %.200s", p.ID, k.Name, v, status, b)
				}
			}
		}
	}
}
