package fit

// Reading is something measured of trials before and after a change.
type Reading struct {
	ID     string
	Less   bool // less is better
	Before []float64
	After  []float64
}

// Kept is the verdict on a change.
type Kept struct {
	Reading Reading // the one compared
	Comparison
	Faults *Faults
	Advice Advice
	More   int // trials still wanted
}

// KeepOrRevert judges a change by the reading that both sides have most of, the first of
// them where that is even, and by the fault that was noted most. seenBefore and seenAfter
// are what was noted of each trial; faults are the names of those that count.
func KeepOrRevert(readings []Reading, seenBefore, seenAfter [][]string, faults []string) Kept {
	var k Kept
	for i, r := range readings {
		if i == 0 || min(len(r.Before), len(r.After)) > min(len(k.Reading.Before), len(k.Reading.After)) {
			k.Reading = r
		}
	}
	k.Comparison = Compare(k.Reading.Before, k.Reading.After)
	k.Faults = MostFaults(seenBefore, seenAfter, faults)
	k.Advice, k.More = k.Judge(k.Faults, k.Reading.Less)
	return k
}
