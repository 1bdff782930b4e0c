package tellers

import (
	"context"
	"errors"

	"tussock/internal/motion"
	"tussock/internal/motion/reveal/teller"
)

// TellerTold is what came up in the plays that were logged, beside the chances.
type TellerTold struct {
	Plays int             `json:"plays"`
	Came  []TellerCameRow `json:"came"`
	Says  string          `json:"says"`
}

// TellerCameRow is one message: how often it came up, and how often it should have, eight of
// ten times between.
type TellerCameRow struct {
	Half    int     `json:"half"` // from 1
	Number  string  `json:"number"`
	Message string  `json:"message"`
	Count   int     `json:"count"`
	Want    float64 `json:"want"`
	Lo      int     `json:"lo"`
	Hi      int     `json:"hi"`
}

// Told is the tally of plays.
func (w *Workbench) Told(ctx context.Context, knobs map[string]float64, log []motion.Noted) (*motion.Drawing, error) {
	s, err := w.at(ctx, knobs)
	if errors.Is(err, ErrNoTeller) {
		return nil, nil //nolint:nilnil // nothing to tell
	}
	if err != nil {
		return nil, err
	}
	out := &TellerTold{Came: []TellerCameRow{}}
	count := [teller.Halves]int{}
	for _, n := range log {
		if v, ok := n.Value(Came); ok && v >= 1 && v <= teller.Halves {
			count[int(v)-1]++
			out.Plays++
		}
	}
	strange := 0
	for h, p := range s.odds {
		lo, hi := usually(out.Plays, p)
		out.Came = append(out.Came, TellerCameRow{h + 1, s.numbers[h], s.messages[h], count[h], p * float64(out.Plays), lo, hi})
		if count[h] < lo || count[h] > hi {
			strange++
		}
	}
	switch {
	case out.Plays < 2*teller.Halves:
		out.Says = "Too few plays to compare with the chances: log sixteen or more."
	case strange > 3:
		out.Says = "Several messages came up more or less often than chance gives: people prefer some numbers, or a move was miscounted."
	default:
		out.Says = "That is as chance gives it."
	}
	return &motion.Drawing{Kind: "tellings", Data: out}, nil
}

// usually are the counts between which eight of ten samples of n lie, each with a chance p.
func usually(n int, p float64) (lo, hi int) {
	if n == 0 {
		return 0, 0
	}
	at, sum := binomial(n, p), 0.0
	lo, hi = -1, n
	for k, q := range at {
		sum += q
		if lo < 0 && sum > 0.1 {
			lo = k
		}
		if sum >= 0.9 {
			return lo, k
		}
	}
	return max(lo, 0), hi
}

// binomial are the chances of 0 to n of n.
func binomial(n int, p float64) []float64 {
	out := make([]float64, n+1)
	out[0] = 1
	for i := range n {
		for k := i + 1; k > 0; k-- {
			out[k] = out[k]*(1-p) + out[k-1]*p
		}
		out[0] *= 1 - p
	}
	return out
}
