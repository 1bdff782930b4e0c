package tune_test

import (
	"context"
	"math"
	"slices"
	"testing"

	"tussock/internal/motion"
	"tussock/internal/motion/glide"
	"tussock/internal/motion/glide/flight"
	"tussock/internal/sheet"
	"tussock/internal/shelf"
	"tussock/internal/tune"
)

func workbench(t testing.TB, id string) *glide.Workbench {
	t.Helper()
	p, ok := shelf.Find(id)
	if !ok {
		t.Fatal("no " + id)
	}
	way := glide.Way()
	c, err := way.Full(nil)
	if err != nil {
		t.Fatal(err)
	}
	on := glide.NewShapes(p, sheet.Sheet{WidthMM: 210, HeightMM: 297, GSM: 80, ThicknessMM: 0.1})
	return on.Under(c, motion.Calibration{}).(*glide.Workbench)
}

func optimise(t testing.TB, w *glide.Workbench, aim string, names ...string) (tune.Found, []motion.Lever) {
	t.Helper()
	levers := w.Levers(nil)
	var free []int
	for _, n := range names {
		for i, l := range levers {
			if l.Name == n {
				free = append(free, i)
			}
		}
	}
	f, err := tune.Optimise(context.Background(), levers, free, w.Measure(levers), w.Goal(aim, 5), glide.Way().Gauge(glide.ByDistance), 160, nil)
	if err != nil {
		t.Fatal(err)
	}
	return f, levers
}

// The optimiser comes as far as a fine grid, and keeps left and right alike.
func TestOptimiserMatchesAGrid(t *testing.T) {
	w := workbench(t, "shelduck")
	found, levers := optimise(t, w, "farthest", "curl", "curl_uneven", "rudder", glide.AngleOfThrow)
	f := w.Measure(levers)
	best := math.Inf(-1)
	x := motion.Positions(levers)
	var top []float64
	index := map[string]int{}
	for i, l := range levers {
		index[l.Name] = i
	}
	for c := -3.0; c <= 12; c += 0.75 {
		for a := -20.0; a <= 40; a += 3 {
			x[index["curl"]], x[index[glide.AngleOfThrow]] = c, a
			m, err := f(context.Background(), x, motion.Whole)
			if err != nil {
				t.Fatal(err)
			}
			if v := w.Goal("farthest", 0)(m); v > best {
				best, top = v, slices.Clone(x)
			}
		}
	}
	// Both are judged by fresh throws: the best of a grid by its own throws is luck in part.
	m, err := f(context.Background(), top, motion.Fresh(600))
	if err != nil {
		t.Fatal(err)
	}
	best = w.Goal("farthest", 0)(m)
	if found.Score < 0.95*best {
		t.Errorf("it comes to %.2f from %.2f, a grid to %.2f: %v, %v", found.Score, found.Was, best, found.At, top)
	}
	if found.Score <= found.Was {
		t.Errorf("it gains nothing: %v after %v", found.Score, found.Was)
	}
	for _, n := range []string{"curl_uneven", "rudder"} {
		if math.Abs(found.At[index[n]]) > 1.5 {
			t.Errorf("%s is set to %v", n, found.At[index[n]])
		}
	}
	for _, r := range found.Reasons {
		if r.Without > found.Score+1e-9 {
			t.Errorf("%s alone is worth less than nothing", r.Lever.Name)
		}
	}
}

// A ring is hit, and other aims give other answers.
func TestAims(t *testing.T) {
	w := workbench(t, "curlew")
	ring, levers := optimise(t, w, "ring", "curl", glide.SpeedOfThrow, glide.AngleOfThrow)
	m, err := w.Measure(levers)(context.Background(), ring.At, motion.Whole)
	if err != nil || math.Abs(m[glide.ByDistance]-5) > 0.8 {
		t.Errorf("it lands at %v of 5 m (%v)", m[glide.ByDistance], err)
	}
	long, _ := optimise(t, w, "longest", "curl", glide.SpeedOfThrow, glide.AngleOfThrow)
	far, _ := optimise(t, w, "farthest", "curl", glide.SpeedOfThrow, glide.AngleOfThrow)
	if long.After[glide.ByTime] < far.After[glide.ByTime]-0.05 || far.After[glide.ByDistance] < long.After[glide.ByDistance]-0.2 {
		t.Errorf("longest %v, farthest %v", long.After, far.After)
	}
	w.Scatter = flight.ScatterOf("child")
	kind, _ := optimise(t, w, "forgiving", "curl", "wing", glide.SpeedOfThrow)
	if kind.After[glide.ByWorst] < kind.Before[glide.ByWorst] {
		t.Errorf("the worst throw comes to %v after %v", kind.After[glide.ByWorst], kind.Before[glide.ByWorst])
	}
}

// Called off, a search ends at once with an error.
func TestSearchIsCalledOff(t *testing.T) {
	w := workbench(t, "curlew")
	levers := w.Levers(nil)
	ctx, cancel := context.WithCancel(context.Background())
	n := 0
	_, err := tune.Optimise(ctx, levers, []int{0, 3}, w.Measure(levers), w.Goal("", 0), glide.Way().Gauge(glide.ByDistance), 300, func(p tune.Progress) {
		n++
		cancel()
	})
	if err == nil || n > 2 {
		t.Errorf("%v after %d reports", err, n)
	}
}

// The knob that matters most for the trim is the tail's curl, and a degree up slows it.
func TestSensitivityOfAGlider(t *testing.T) {
	w := workbench(t, "shelduck")
	levers := w.Levers(map[string]float64{"curl": 3})
	effects, err := tune.Sensitivity(context.Background(), levers, w.Measure(levers), glide.BySpeed)
	if err != nil {
		t.Fatal(err)
	}
	for i, e := range effects {
		if e.Lever.Name == "curl" {
			if i > 3 || e.Up[glide.BySpeed] >= 0 || e.Down[glide.BySpeed] <= 0 {
				t.Errorf("the curl is number %d and changes the trim by %v and %v", i+1, e.Up[glide.BySpeed], e.Down[glide.BySpeed])
			}
			return
		}
	}
	t.Error("the curl is missing")
}

func BenchmarkOptimiseFiveKnobs(b *testing.B) {
	w := workbench(b, "curlew")
	for b.Loop() {
		optimise(b, w, "farthest", "curl", "curl_uneven", "rudder", "twist", glide.AngleOfThrow)
	}
}
