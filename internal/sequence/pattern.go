package sequence

import (
	"tussock/internal/sheet"
)

// Pattern is a fold sequence as read from its text. It is never changed.
type Pattern struct {
	ID                 string // file name without ending
	File               string
	Text               string
	Title              string
	Moves              string // how the toy moves, by the word of its way
	Good               string // what it is good at, in a folder's words
	Show               bool   // made to be looked at; how it moves is predicted all the same
	Minutes            int
	WidthMM, HeightMM  float64      // the sheet it was written for, or its box
	Shape              *sheet.Shape // of that sheet, nil for a rectangle
	MinRatio, MaxRatio float64      // of height to width; 0 when nothing is required
	Knobs              []Knob
	Steps              []Step   // operations only, in order
	Unused             []string // names given and never used
	stmts              []statement
	sources            []Source            // by statement, what it was read from
	called             map[string]string   // words for people for names of the pattern
	margin             [4]numExpr          // left, right, bottom, top; nil where nothing comes off
	lines              map[string]bool     // names that are lines
	heads              map[string][]string // what the head statements of its way name
	reader             Reader
}

// KnobKind tells what changing a knob costs.
type KnobKind string

const (
	// HardFold knobs move a crease: another value is another toy.
	HardFold KnobKind = "fold"
	// SetUp knobs are last bends: they can be changed on the finished toy.
	SetUp KnobKind = "set"
)

// Knob is one adjustable value.
type Knob struct {
	Name     string
	Label    string
	Unit     string // "mm", "deg", "g" or "" for a fraction
	Default  float64
	Min, Max float64
	Kind     KnobKind
	Changes  string  // what it does, in a folder's words
	Steps    []int   // the steps that use it, from 1
	Plain    bool    // a param without range, not shown as a knob
	Implied  bool    // no line of the pattern writes it and no fold uses it: its way of moving does
	Step     float64 // a step that a hand can make; 0 for the usual one of its unit
	Named    []Named // values that have a name
	line     int
}

// Named is a value of a knob that people call by a name.
type Named struct {
	Value float64 `json:"value"`
	Label string  `json:"label"`
}

// Op is a kind of step.
type Op string

// The kinds of step. Those from OpBend on are set in the round and leave the flat
// toy as it is; those from OpGlue to OpGuard are notes on the paper.
const (
	OpCrease   Op = "crease"
	OpValley   Op = "valley"
	OpMountain Op = "mountain"
	OpPinch    Op = "pinch"
	OpTurn     Op = "turn"
	OpRotate   Op = "rotate"
	OpReverse  Op = "reverse"
	OpCrimp    Op = "crimp"
	OpSquash   Op = "squash"
	OpPetal    Op = "petal"
	OpCollapse Op = "collapse"
	OpDraw     Op = "draw"
	OpFlex     Op = "flex"
	OpRabbit   Op = "rabbit"
	OpTwist    Op = "twist"
	OpGather   Op = "gather"
	OpSink     Op = "sink"
	OpPop      Op = "pop"
	OpPleat    Op = "pleat"
	OpRoll     Op = "roll"
	OpRound    Op = "round"
	OpPair     Op = "pair"
	OpLeaf     Op = "leaf"
	OpCut      Op = "cut"
	OpTear     Op = "tear"
	OpSlit     Op = "slit"
	OpUnfold   Op = "unfold"
	OpRefold   Op = "refold"
	OpTransfer Op = "transfer"
	OpGlue     Op = "glue"
	OpTape     Op = "tape"
	OpClip     Op = "clip"
	OpLabel    Op = "label"
	OpInk      Op = "ink"
	OpAxle     Op = "axle"
	OpOpen     Op = "open"
	OpBend     Op = "bend"
	OpCurl     Op = "curl"
	OpWrap     Op = "wrap"
	OpPart     Op = "part"
	OpPivot    Op = "pivot"
)

// Character is how hard a crease is pressed.
type Character string

const (
	Sharp Character = "sharp"
	Firm  Character = "firm"
	Soft  Character = "soft"
	Bend  Character = "bend" // no crease at all
)

// Step is one operation of a pattern.
type Step struct {
	No    int // from 1
	Line  int // in the file
	Op    Op
	Text  string // the operation as written, without comment
	Say   string // for people
	Looks string // "it looks right when ..."
	Name  string // of the crease it makes, "" when it has none

	Character    Character
	Class        string // what the author says of its tolerance: critical, normal, free or ""
	Optional     bool   // a tidying fold that may be left out
	Conditioning bool   // a crease folded only to make the paper supple
	BothWays     bool   // a crease folded to both sides
	Guards       []Guard
	Sets         *Setting // what it sets of the finished toy, by a word of its way of moving; nil for none

	act    action
	expect int // pieces that move; -1 when not said
}

// Guard says that a step must come before another, and what goes wrong else.
type Guard struct {
	Before string // name of the later step
	Reason string
}

// action is what a step does. It is carried out on the state reached: on the
// nominal paper, or on paper with errors (see package shadow).
type action interface {
	do(r *run, s *Step, d *Done) error
}

type statement interface{ at() int }

type stepStmt struct{ step int } // index into Pattern.Steps

type pointStmt struct {
	line  int
	name  string
	p     pointExpr
	layer layerChoice
	text  string
}

type layerChoice struct {
	which string // "top", "bottom" or "layer"
	of    pointExpr
}

type expectStmt struct {
	line   int
	text   string
	p      pointExpr
	q      pointExpr // point where it should be, or nil
	l      lineExpr  // line on which it should be, or nil
	m      lineExpr  // line that should be parallel to l, or nil
	within numExpr
	facets int       // when > 0: number of pieces
	sheets int       // when > 0: layers of paper at p
	below  pointExpr // p lies above it
	unique bool      // the order of the layers so far leaves no choice
}

func (stepStmt) at() int     { return 0 }
func (s pointStmt) at() int  { return s.line }
func (s expectStmt) at() int { return s.line }

type foldKind int8

const (
	foldNone       foldKind = iota
	foldPointPoint          // bring P to P
	foldLineLine            // bring L to L
	foldPointLine           // bring P to L through P [near P]
	foldThrough             // through P P
	foldSquare              // through P square L
	foldAlong               // along L
	foldTwoPoints           // bring P to L and P to L [near P]
	foldBalance             // bring P to balance
)

// foldLine says where the crease goes. Offset and tilt shift the line away from
// its landmarks; both are zero unless a knob asks for it.
type foldLine struct {
	kind          foldKind
	p, q          pointExpr
	l, m          lineExpr
	through, near pointExpr
	offset        numExpr
	offsetToward  pointExpr
	tilt          numExpr
	tiltToward    pointExpr
	tiltAbout     pointExpr
	gap           numExpr // how far short of the target what is brought stops, mm
	gapAuto       bool    // as far as the layers inside the fold need
}

// Built-in landmarks of a rectangular sheet, as people call them.
var builtInPoints = map[string]string{
	"BL": "the bottom left corner", "BR": "the bottom right corner",
	"TR": "the top right corner", "TL": "the top left corner",
	"B": "the middle of the bottom edge", "R": "the middle of the right edge",
	"T": "the middle of the top edge", "L": "the middle of the left edge",
	"C": "the middle of the sheet",
}

// Built-in lines of a rectangular sheet, as people call them.
var builtInLines = map[string]string{
	"left": "the left edge", "right": "the right edge", "top": "the top edge", "bottom": "the bottom edge",
	"hcentre": "the line across the middle", "vcentre": "the upright middle line",
}

// Called is what people call a landmark or crease: the words the pattern gives
// with "called", the customary words for corners and edges, else the name.
func (p *Pattern) Called(name string) string {
	for _, words := range []map[string]string{p.called, builtInPoints, builtInLines} {
		if w, ok := words[name]; ok {
			return w
		}
	}
	return name
}

// Source is what a statement was read from. Its line number is that of the line in the
// file that caused it.
type Source struct {
	Line    int
	Text    string
	Defines []string        // names that it gives
	Used    map[string]bool // numbers (knobs and params) that it depends on
}
