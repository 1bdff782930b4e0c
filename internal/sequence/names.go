package sequence

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
	if t, ok := stepTitles[s.Op]; ok {
		return t
	}
	return string(s.Op)
}

var stepTitles = map[Op]string{
	OpCrease: "crease and unfold", OpValley: "valley fold", OpMountain: "mountain fold", OpPinch: "pinch",
	OpTurn: "turn over", OpRotate: "rotate", OpSquash: "squash", OpPetal: "petal fold", OpCollapse: "collapse",
	OpDraw: "draw out", OpFlex: "flex", OpRabbit: "rabbit ear", OpTwist: "twist", OpGather: "gather to a base",
	OpSink: "sink", OpPop: "turn inside out", OpPleat: "pleat", OpRoll: "roll", OpRound: "round the corner",
	OpPair: "pair of folds", OpLeaf: "turn a leaf", OpCut: "cut", OpTear: "tear", OpSlit: "slit",
	OpTransfer: "carry a mark over", OpGlue: "glue", OpTape: "tape", OpClip: "clip", OpLabel: "write",
	OpInk: "draw a line", OpAxle: "pin", OpOpen: "open in the round", OpBend: "bend",
	OpCurl: "curl", OpWrap: "wrap", OpPart: "part the leaves", OpPivot: "slide the layers",
}
