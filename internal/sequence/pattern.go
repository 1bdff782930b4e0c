package sequence

import (
	"tussock/internal/sequence/knob"
	"tussock/internal/sequence/proportion"
	"tussock/internal/sequence/round"
	"tussock/internal/sheet"
)

// Pattern is a fold sequence as read from its text. It is never changed.
type Pattern struct {
	ID                 string // file name without ending
	File               string
	Text               string
	Title              string
	Moves              string   // how the toy moves, by the word of its way
	Good               string   // what it is good at, in a folder's words
	Family             string   // the one it belongs to: patterns with the same base, easier and harder
	Credit             string   // whose work it is, as it is to be told on prints and files
	AddsTo             []string // the patterns that it goes with, by id, where it is an add-on
	Adapts             string   // what it was made from, by id; "" where it is nobody's child
	Show               bool     // made to be looked at; how it moves is predicted all the same
	Minutes            int
	WidthMM, HeightMM  float64      // the sheet it was written for, or its box
	Shape              *sheet.Shape // of that sheet, nil for a rectangle
	Corners            string       // the knob that says how many corners it has, "" when it is fixed
	MinRatio, MaxRatio float64      // of height to width; 0 when nothing is required
	Knobs              []Knob
	Steps              []Step   // operations only, in order
	Unused             []string // names given and never used
	Stmts              []Statement
	Sources            []Source            // by statement, what it was read from
	CalledWords        map[string]string   // words for people for names of the pattern
	MadeWords          map[string]string   // the same for names that the author called nothing
	Derived            []Derived           // params that are reckoned, in order
	Margin             [4]NumExpr          // left, right, bottom, top; nil where nothing comes off
	Lines              map[string]bool     // names that are lines
	HeadNames          map[string][]string // what the head statements of its way name
	HeadLines          map[string]int      // and in which line
	Reader             Reader
}

// Knobs and what they are like.
type (
	Knob     = knob.Knob
	KnobKind = knob.Kind
	Named    = knob.Named
)

// What changing a knob costs.
const (
	HardFold = knob.HardFold
	SetUp    = knob.SetUp
)

// Op is a kind of step.
type Op = round.Op

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
	OpRays     Op = "rays"
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
	No     int // from 1
	Line   int // in the file
	Op     Op
	Text   string  // the operation as written, without comment
	Say    string  // for people
	Looks  string  // "it looks right when ..."
	Quotes []Quote // numbers that the words quote
	Name   string  // of the crease it makes, "" when it has none

	Character    Character
	Class        string // what the author says of its tolerance: critical, normal, free or ""
	Optional     bool   // a tidying fold that may be left out
	Conditioning bool   // a crease folded only to make the paper supple
	BothWays     bool   // a crease folded to both sides
	Guards       []Guard
	Sets         *Setting // what it sets of the finished toy, by a word of its way of moving; nil for none

	Act    Action
	Expect int // pieces that move; -1 when not said
	Like   int // the step that it repeats, from 1; 0 for none
}

// Guard says that a step must come before another, and what goes wrong else.
type Guard struct {
	Before string // name of the later step
	Reason string
}

// Action is what a step does. It is carried out on the state reached: on the
// nominal paper, or on paper with errors (see package shadow).
type Action interface {
	Do(r *Course, s *Step, d *Done) error
}

// Statement is one line of a pattern that is carried out.
type Statement interface{ at() int }

// StepStmt is a step, by its index in Pattern.Steps.
type StepStmt struct{ Step int } // index into Pattern.Steps

// PointStmt gives a place of the paper a name.
type PointStmt struct {
	Line  int
	Name  string
	P     PointExpr
	Layer layerChoice
	Text  string
}

type layerChoice struct {
	Which string // "top", "bottom" or "layer"
	Of    PointExpr
}

// ExpectStmt is a check of where things lie.
type ExpectStmt struct {
	Line   int
	Text   string
	P      PointExpr
	Q      PointExpr // point where it should be, or nil
	L      LineExpr  // line on which it should be, or nil
	M      LineExpr  // line that should be parallel to l, or nil
	Within NumExpr
	Facets int       // when > 0: number of pieces
	Sheets int       // when > 0: layers of paper at p
	Below  PointExpr // p lies above it
	Unique bool      // the order of the layers so far leaves no choice
}

func (StepStmt) at() int     { return 0 }
func (s PointStmt) at() int  { return s.Line }
func (s ExpectStmt) at() int { return s.Line }

type foldKind int8

const (
	foldNone       foldKind = iota
	FoldPointPoint          // bring P to P
	FoldLineLine            // bring L to L
	FoldPointLine           // bring P to L through P [near P]
	FoldThrough             // through P P
	FoldSquare              // through P square L
	FoldAlong               // along L
	FoldTwoPoints           // bring P to L and P to L [near P]
	FoldBalance             // bring P to balance
)

// FoldLine says where the crease goes. Offset and tilt shift the line away from
// its landmarks; both are zero unless a knob asks for it.
type FoldLine struct {
	Kind          foldKind
	P, Q          PointExpr
	L, M          LineExpr
	Through, Near PointExpr
	Offset        NumExpr
	OffsetToward  PointExpr
	Tilt          NumExpr
	TiltToward    PointExpr
	TiltAbout     PointExpr
	Gap           NumExpr // how far short of the target what is brought stops, mm
	GapAuto       bool    // as far as the layers inside the fold need
}

// Source is what a statement was read from. Its line number is that of the line in the
// file that caused it.
type Source struct {
	Line    int
	Text    string
	Defines []string        // names that it gives
	Used    map[string]bool // numbers (knobs and params) that it depends on
}

// needs is what the pattern asks of its sheet's proportions.
func (p *Pattern) needs() proportion.Need {
	return proportion.Need{Title: p.Title, Min: p.MinRatio, Max: p.MaxRatio, Own: p.HeightMM / p.WidthMM}
}

// Takes tells whether a sheet so many times as high as wide is what the pattern requires.
func (p *Pattern) Takes(ratio float64) bool { return p.needs().Takes(ratio) }

// AsFolded is what a sheet is folded as: itself, or of the height that is needed where it
// nearly has that (proportion.Need.Height).
func (p *Pattern) AsFolded(s sheet.Sheet) sheet.Sheet {
	if s.Shape == nil && p.Shape == nil && p.Margin == [4]NumExpr{} {
		s.HeightMM = p.needs().Height(s.WidthMM, s.HeightMM)
	}
	return s
}

// Nearly says of such a sheet what is off; empty where it is folded as it is.
func (p *Pattern) Nearly(s sheet.Sheet) string {
	return proportion.Nearly(s.HeightMM-p.AsFolded(s).HeightMM, p.HeightMM/p.WidthMM)
}
