package round

// Titles are what the field calls steps, where it is more than their word.
var Titles = map[Op]string{
	"crease": "crease and unfold", "valley": "valley fold", "mountain": "mountain fold", "pinch": "pinch",
	"turn": "turn over", "rotate": "rotate", "squash": "squash", "petal": "petal fold", "collapse": "collapse",
	"draw": "draw out", "flex": "flex", "rabbit": "rabbit ear", "twist": "twist", "gather": "gather to a base", "rays": "creases through the middle",
	"sink": "sink", "pop": "turn inside out", "pleat": "pleat", "roll": "roll", "round": "round the corner",
	"pair": "pair of folds", "leaf": "turn a leaf", "cut": "cut", "tear": "tear", "slit": "slit",
	"transfer": "carry a mark over", "glue": "glue", "tape": "tape", "clip": "clip", "label": "write",
	"ink": "draw a line", "axle": "pin", "open": "open in the round", "bend": "bend",
	"curl": "curl", "wrap": "wrap", "part": "part the leaves", "pivot": "slide the layers",
}

// Did is what a step has done to the toy, so that it does not lie flat any more.
func Did(op Op) string {
	switch op {
	case "bend", "curl", "wrap":
		return "bent the paper"
	case "part":
		return "parted the leaves"
	case "pivot":
		return "shifted layers"
	}
	return "opened the toy"
}
