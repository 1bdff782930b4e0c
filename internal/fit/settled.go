package fit

import "fmt"

// Settled is what trials say of a question with two answers, A against B; each is how many trials of either are wanted.
func Settled(answerA, answerB string, a, b []float64, each int) string {
	c := Compare(b, a)
	times := fmt.Sprintf("(n = %d, %d)", c.After, c.Before)
	switch c.Verdict {
	case Better:
		return fmt.Sprintf("Your trials say: %s %s.", answerA, times)
	case Worse:
		return fmt.Sprintf("Your trials say: %s %s.", answerB, times)
	case TooFew:
		return fmt.Sprintf("Too few trials yet %s: %d of each are wanted.", times, each)
	}
	return fmt.Sprintf("Your trials do not tell them apart %s.", times)
}
