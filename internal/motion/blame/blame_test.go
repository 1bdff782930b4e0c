package blame_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"tussock/internal/motion/blame"
)

// world is a person whose trials come to a number about mean, and who sees a fault when it
// is over 2.
func world(r *rand.Rand, mean, between, within float64, n int) blame.World {
	mean += between * r.NormFloat64()
	var out blame.World
	for range n {
		v := mean + within*r.NormFloat64()
		out = append(out, blame.Trial{Read: []float64{v}, Seen: []bool{v > 2}, Noted: true})
	}
	return out
}

func cases(r *rand.Rand) []blame.Case {
	var out []blame.Case
	for _, c := range []struct {
		cause      string
		size, mean float64
	}{{"none", 0, 0}, {"some", 1, 1}, {"much", 3, 3}, {"much", 5, 5}} {
		q := blame.Case{Cause: c.cause, Size: c.size, Prior: 1}
		for range 40 {
			q.Worlds = append(q.Worlds, world(r, c.mean, 0.3, 0.5, 6))
		}
		out = append(out, q)
	}
	return out
}

// The cause that was put in comes first nearly always, its size near to what was put in,
// and the shares are as sure as they are right.
func TestTheCauseThatWasPutInIsFound(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 2))
	all := cases(r)
	right, believed := 0.0, 0.0
	const n = 300
	for i := range n {
		c := all[i%len(all)]
		log := world(r, []float64{0, 1, 3, 5}[i%4], 0.3, 0.5, 5)
		v := blame.Verdicts(all, blame.Weigh(all, log, []float64{0.1}))
		sum := 0.0
		for _, q := range v {
			sum += q.Share
		}
		if math.Abs(sum-1) > 1e-9 {
			t.Fatalf("shares sum to %v", sum)
		}
		if v[0].Cause == c.Cause {
			right += 1.0 / n
			if c.Cause == "much" && math.Abs(v[0].Size-c.Size) > 1 {
				t.Errorf("a size of %v is taken for %v", c.Size, v[0].Size)
			}
		}
		believed += v[0].Share / n
	}
	if right < 0.85 || math.Abs(right-believed) > 0.08 {
		t.Errorf("right in %.2f, believed in %.2f", right, believed)
	}
}

// With nothing seen the priors stay; what nobody read does not count; causes that foretell
// the same are a tie.
func TestNothingSeenNothingLearnt(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 2))
	all := cases(r)
	all[1].Prior = 3
	v := blame.Weigh(all, nil, []float64{0.1})
	blind := blame.Weigh(all, blame.World{{Read: []float64{math.NaN()}, Seen: []bool{false}}}, []float64{0.1})
	for i, want := range []float64{1. / 6, 3. / 6, 1. / 6, 1. / 6} {
		if math.Abs(v[i]-want) > 1e-9 || math.Abs(blind[i]-want) > 1e-9 {
			t.Errorf("%v, unread %v", v, blind)
		}
	}
	twin := all[2]
	twin.Cause = "twin"
	both := append(all, twin)
	q := blame.Verdicts(both, blame.Weigh(both, world(r, 3, 0, 0.5, 6), []float64{0.1}))
	kind := func(cause string) string { return map[string]string{"none": "few", "some": "few"}[cause] }
	if tied := blame.Tied(q, kind); len(tied) != 2 {
		t.Errorf("%+v", q)
	}
	if tied := blame.Tied([]blame.Verdict{{Cause: "some", Share: 0.8}, {Cause: "much", Share: 0.1}, {Cause: "none", Share: 0.1}}, kind); len(tied) != 2 || tied[1].Cause != "none" {
		t.Errorf("what looks the same: %+v", tied)
	}
}
