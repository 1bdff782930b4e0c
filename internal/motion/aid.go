package motion

// Aid is what helps with one step: words, a picture, things to look at one by one.
type Aid struct {
	Kind  string    `json:"kind"` // rays, curve, list or hands
	Title string    `json:"title"`
	Says  string    `json:"says"`
	Lines []AidLine `json:"lines"` // a picture, mm, y downward; none for no picture
	Items []AidItem `json:"items"` // to be looked at and ticked off
	Done  string    `json:"done"`  // what is said of those that are: pressed again
	Clock int       `json:"clock"` // which way something is turned, seen from above: 1 clockwise, -1 against the clock, 0 for no turn
}

// Whole is an aid without missing lists.
func (a Aid) Whole() Aid {
	fill(&a.Lines)
	fill(&a.Items)
	return a
}

// AidLine is a line of the picture of an aid.
type AidLine struct {
	Points []float64 `json:"points"`
	Item   int       `json:"item"`  // that it stands for, from 1; 0 for none
	Heavy  bool      `json:"heavy"` // drawn heavier
}

// AidItem is one thing to look at.
type AidItem struct {
	Label string `json:"label"`
	Says  string `json:"says"`
	Want  string `json:"want"` // what it should be, where it is one of two; else empty
}
