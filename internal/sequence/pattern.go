package sequence

// Pattern is a fold sequence as read from its text. It is never changed.
type Pattern struct {
	ID                 string // file name without ending
	File               string
	Text               string
	Title              string
	Moves              string // how the toy moves: fly, hop, flap, spin or reveal
	Good               string // what it is good at, in a folder's words
	Minutes            int
	WidthMM, HeightMM  float64 // the sheet it was written for
	MinRatio, MaxRatio float64 // of height to width; 0 when nothing is required
	NoseName           string  // landmark that points forward, "" when none
	KeelName           string  // crease that becomes the lower edge of the keel, "" when none
	Knobs              []Knob
	Steps              []Step // operations only, in order
	stmts              []statement
	called             map[string]string // words for people for names of the pattern
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
	Unit     string // "mm", "deg" or "" for a fraction
	Default  float64
	Min, Max float64
	Kind     KnobKind
	Changes  string // what it does, in a folder's words
	Steps    []int  // the steps that use it, from 1
	Plain    bool   // a param without range, not shown as a knob
	line     int
}

// Op is a kind of step.
type Op string

const (
	OpCrease   Op = "crease"
	OpValley   Op = "valley"
	OpMountain Op = "mountain"
	OpTurn     Op = "turn"
	OpRotate   Op = "rotate"
	OpWing     Op = "wing"
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

	fold   foldLine
	moving []pointExpr
	grab   []pointExpr
	all    bool
	expect int // pieces that move; -1 when not said
	axis   string
	angle  numExpr
	wings  []lineExpr
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
	within numExpr
	facets int // when > 0: number of pieces
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
