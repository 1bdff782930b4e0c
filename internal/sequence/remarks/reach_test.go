package remarks_test

import (
	"context"
	"math"
	"testing"

	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/sequence"
	"tussock/internal/sequence/remarks"
	"tussock/internal/sheet"
	"tussock/internal/shelf"
	"tussock/internal/ways"
)

// On two sheets each knob goes as far as it is said to: whatever lies
// inside can be folded and takes the same pieces along, and what ends the stretch is true.
func TestReachOfTheShelf(t *testing.T) {
	ends, helped := 0, 0
	for _, id := range shelf.Names() {
		p, _ := shelf.Find(id)
		for _, scale := range []float64{1, 0.8} {
			s := sheet.Sheet{WidthMM: p.WidthMM * scale, HeightMM: p.HeightMM * scale, GSM: 80, ThicknessMM: 0.1}
			all, err := remarks.ReachOf(context.Background(), p, s, nil)
			if err != nil {
				t.Fatal(err)
			}
			for _, r := range all {
				k := p.Knobs[p.KnobIndex(r.Name)]
				if r.Min < k.Min || r.Max > k.Max || r.Min > k.Default || r.Max < k.Default {
					t.Fatalf("%s %s: %v to %v round %v", id, r.Name, r.Min, r.Max, k)
				}
				inside(t, p, s, r)
				for _, e := range []*remarks.End{r.Below, r.Above} {
					if e == nil {
						continue
					}
					ends++
					if e.Step < 1 || e.Step > len(p.Steps) || e.Why == "" || e.At >= r.Min && e.At <= r.Max {
						t.Errorf("%s %s ends with %+v", id, r.Name, e)
					}
					if e.Other != "" {
						helped++
						if got := p.Run(s, map[string]float64{r.Name: e.At, e.Other: e.To}); got.Err != nil {
							t.Errorf("%s: %s %v is said to fold with %s %v: %v", id, r.Name, e.At, e.Other, e.To, got.Err)
						}
						if got := p.Run(s, map[string]float64{r.Name: e.At}); got.Err == nil {
							t.Errorf("%s: %s %v folds without %s", id, r.Name, e.At, e.Other)
						}
					}
				}
				if r.Below == nil && r.Min != k.Min || r.Above == nil && r.Max != k.Max {
					t.Errorf("%s %s: %v to %v of %v to %v, and nothing says why", id, r.Name, r.Min, r.Max, k.Min, k.Max)
				}
			}
		}
	}
	if ends < 20 || helped < 5 {
		t.Errorf("%d ends, %d of them go on with another knob: is anything searched?", ends, helped)
	}
}

// inside tries values that the search did not, and compares how many of some spots of the
// paper each step moves with what values beside it do: what a line newly crosses adds
// some, not at once half of the toy.
func inside(t *testing.T, p *sequence.Pattern, s sheet.Sheet, r remarks.Reach) {
	t.Helper()
	const tries, most = 9, 12
	spots := grid(s)
	var before []int
	for i := range tries {
		v := r.Min + (r.Max-r.Min)*(float64(i)+0.5)/tries
		whole := p.Knobs[p.KnobIndex(r.Name)].Whole
		if whole {
			v = math.Round(v)
		}
		run := p.Run(s, map[string]float64{r.Name: v})
		if run.Err != nil {
			t.Errorf("%s: %s %v lies between %v and %v: %v", p.ID, r.Name, v, r.Min, r.Max, run.Err)
			return
		}
		if whole { // another count is another toy
			continue
		}
		var moved []int
		for _, d := range run.Steps {
			n := 0
			for _, q := range spots {
				if at(d.Before, q).Dist(at(d.After, q)) > 0.01 {
					n++
				}
			}
			moved = append(moved, n)
		}
		for n := range before {
			if max(moved[n]-before[n], before[n]-moved[n]) > most {
				t.Errorf("%s: at %s %v step %d moves %d of %d spots, just before %d", p.ID, r.Name, v, n+1, moved[n], len(spots), before[n])
			}
		}
		before = moved
	}
}

// grid are 63 spots spread over a sheet, none on a likely crease.
func grid(s sheet.Sheet) []geom.Vec {
	var out []geom.Vec
	for i := range 7 {
		for j := range 9 {
			out = append(out, geom.Vec{X: s.WidthMM * (float64(i) + 0.473) / 7, Y: s.HeightMM * (float64(j) + 0.519) / 9})
		}
	}
	return out
}

func at(s *fold.State, q geom.Vec) geom.Vec {
	for _, f := range s.F {
		if f.Poly.Contains(q, 0) {
			return f.Iso.Apply(q)
		}
	}
	return geom.Vec{}
}

// A search that nobody waits for any more stops.
func TestReachIsCalledOff(t *testing.T) {
	ctx, cancel := context.WithCancel(context.Background())
	cancel()
	p, _ := shelf.Find("curlew")
	if _, err := remarks.ReachOf(ctx, p, sheet.Sheet{WidthMM: 297, HeightMM: 210, GSM: 80, ThicknessMM: 0.1}, nil); err == nil {
		t.Error("it goes on")
	}
}

// All values fold, and yet the stretch ends where other pieces move: the corner that is
// to move changes sides.
func TestReachEndsWhereOtherPiecesMove(t *testing.T) {
	p, err := ways.Parse("t", "sheet square 100\nknob x \"Foot\" = 20 mm from 0 to 90 fold changes \"Where the line starts.\"\npoint Q = sheet(45, 0)\nvalley through sheet(x, 0) sheet(50, 80) moving Q layers all\n")
	if err != nil {
		t.Fatal(err)
	}
	s := sheet.Sheet{WidthMM: 100, HeightMM: 100, GSM: 80, ThicknessMM: 0.1}
	for now, want := range map[float64][2]float64{20: {0, 45}, 70: {45, 90}} {
		all, err := remarks.ReachOf(context.Background(), p, s, map[string]float64{"x": now})
		if err != nil || len(all) != 1 {
			t.Fatal(all, err)
		}
		if r := all[0]; math.Abs(r.Min-want[0]) > 0.11 || math.Abs(r.Max-want[1]) > 0.11 || (r.Above == nil) != (now == 70) {
			t.Errorf("from %v: %+v", now, r)
		}
	}
}
