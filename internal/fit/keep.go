package fit

// Keeping or going back: one change, judged by what was measured and by the fault that
// was seen most before it.

// Advice is what to do about a change.
type Advice string

// The advice.
const (
	Keep    Advice = "keep"
	Revert  Advice = "revert"
	TryMore Advice = "try more"
)

// Faults is how often a fault was seen before and after a change.
type Faults struct {
	Name            string
	Before, BeforeN int
	After, AfterN   int
	Chance          float64 // that mere luck gives as large a difference
}

// MostFaults is about the fault, of those that count, that was noted most before; nil
// when none was noted at least twice. before and after are what was noted of each trial.
func MostFaults(before, after [][]string, faults []string) *Faults {
	count := func(trials [][]string, fault string) (k, n int) {
		for _, t := range trials {
			if len(t) > 0 {
				n++
			}
			for _, s := range t {
				if s == fault {
					k++
				}
			}
		}
		return k, n
	}
	best := Faults{}
	for _, f := range faults {
		if k, n := count(before, f); k > best.Before {
			best.Name, best.Before, best.BeforeN = f, k, n
		}
	}
	if best.Before < 2 {
		return nil
	}
	best.After, best.AfterN = count(after, best.Name)
	best.Chance = Share(best.Before, best.BeforeN, best.After, best.AfterN)
	return &best
}

// Cured tells that the fault has become rare, and not by luck.
func (f *Faults) Cured() bool {
	return f != nil && f.Chance < sure && f.After*f.BeforeN < f.Before*f.AfterN
}

// Judge says whether to keep a change, and how many trials are still wanted. A fault that
// is gone counts where readings cannot tell; less tells that less of them is better.
func (c Comparison) Judge(f *Faults, less bool) (Advice, int) {
	v := c.Verdict
	if less && v == Better {
		v = Worse
	} else if less && v == Worse {
		v = Better
	}
	switch {
	case v == Better || v == Level && f.Cured():
		return Keep, 0
	case v == Worse:
		return Revert, 0
	case v == Level && c.More == 0:
		// Enough trials, and nothing seen: the simpler set-up is as good.
		return Revert, 0
	}
	return TryMore, c.More
}
