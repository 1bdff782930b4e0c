package motion

// How sure a constant is.
type Confidence string

// Textbook or exact; right form, number good to 15 %; a guess that throws must judge.
const (
	High   Confidence = "high"
	Medium Confidence = "medium"
	Low    Confidence = "low"
)

// Constant is a number the model rests on that is no exact law.
type Constant struct {
	Name       string     `json:"name"`
	Value      float64    `json:"value"`
	Lo         float64    `json:"lo"`
	Hi         float64    `json:"hi"`
	Unit       string     `json:"unit"`
	Confidence Confidence `json:"confidence"`
	Source     string     `json:"source"`
	Effect     string     `json:"effect"` // what it does to the result over its range
}
