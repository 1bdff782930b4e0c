package motion

import "math"

// Doubt is how a number that trials teach is believed: standard deviations of its logarithm.
type Doubt struct {
	Before float64 // before anything is measured
	Trial  float64 // single trials of one toy
	Toy    float64 // toys, once the person's number is known
	Floor  float64 // what stays uncertain however much is learnt
}

// LearnFactor is what trials say of a number that the model is least sure of: Bayes' rule
// with normal logarithms. factor tells of an observation what the number must be multiplied
// by for the middle of its trials, and how many there are; those of fewer than Enough
// trials, or of a factor that is no number, teach nothing.
func LearnFactor(what string, d Doubt, all []Observation, factor func(Observation) (f float64, n int)) Calibration {
	out := Calibration{What: what}
	weight, sum := 1/(d.Before*d.Before), 0.0
	builds := map[int64]bool{}
	for _, o := range all {
		f, n := factor(o)
		if n < Enough || !(f > 0) {
			continue
		}
		v := d.Toy*d.Toy + d.Trial*d.Trial/float64(n)
		weight += 1 / v
		sum += math.Log(f) / v
		out.Trials += n
		builds[o.Build] = true
	}
	if out.Trials == 0 {
		return out
	}
	out.Factor, out.Builds = math.Exp(sum/weight), len(builds)
	out.Spread = math.Sqrt(1/weight + d.Floor*d.Floor)
	return out
}
