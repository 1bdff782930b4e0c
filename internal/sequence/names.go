package sequence

import "tussock/internal/sequence/round"

// Titled is an action that is called by more than its word.
type Titled interface{ Title() string }

// Title is what the field calls a step.
func (s Step) Title() string {
	if s.Sets != nil {
		return s.Sets.Title
	}
	if a, ok := s.Act.(Titled); ok {
		return a.Title()
	}
	if t, ok := round.Titles[s.Op]; ok {
		return t
	}
	return string(s.Op)
}
