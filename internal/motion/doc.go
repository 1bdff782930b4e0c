// Package motion holds what all ways of moving have in common: what is read off a toy,
// with its band and what it means. Each way of moving has a package of its own below.
package motion

// Reading is one number of a toy: what it is, how sure, what it means and what moves it.
type Reading struct {
	ID    string  `json:"id"`
	Label string  `json:"label"`
	Brief string  `json:"brief,omitempty"` // what follows the value and its unit, when it stands alone
	Unit  string  `json:"unit"`            // mm, g, deg, m, s, m/s, N/m², %, or empty; lengths of the toy are in mm
	Value float64 `json:"value"`
	// Lo and Hi are the band: where it lies, given what the model does not know. Equal
	// to Value for what is computed from the folds alone.
	Lo       float64 `json:"lo"`
	Hi       float64 `json:"hi"`
	Decimals int     `json:"decimals"`
	// UsualLo and UsualHi are what such toys usually have; both 0 when nothing is usual.
	UsualLo   float64 `json:"usual_lo"`
	UsualHi   float64 `json:"usual_hi"`
	Predicted bool    `json:"predicted"` // rests on the model of the air, not on the folds alone
	Meaning   string  `json:"meaning"`
	MovedBy   string  `json:"moved_by"`       // what changes it
	Says      string  `json:"says,omitempty"` // what this value means here, when it is worth a word
}
