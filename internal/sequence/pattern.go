package sequence

import (
	"fmt"
	"math"

	"tussock/internal/say"
	"tussock/internal/sequence/knob"
	"tussock/internal/sequence/round"
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

// sameRatio is how much two proportions may differ by rounding.
const sameRatio = 1e-9

// NearMM is how far the height of a sheet may be from proportions that a pattern needs to
// be folded as if it had them: two standard deviations of a torn edge, the least exact that
// a sheet is got by (prepare.Route.ErrorMM).
const NearMM = 1.5

// narrow is a range of proportions that is one proportion, with what rounding needs.
const narrow = 0.015

// AsFolded is the sheet that a sheet is folded as: itself, or, where it is no more than
// NearMM too high or too low for what the pattern requires, the one that does. Of a toy
// that needs a square nobody throws away a sheet that is a millimetre off.
func (p *Pattern) AsFolded(s sheet.Sheet) sheet.Sheet {
	if s.Shape != nil || p.Shape != nil || p.MinRatio == 0 || p.Margin != [4]NumExpr{} {
		return s
	}
	q := math.Min(math.Max(s.Ratio(), p.MinRatio), p.MaxRatio)
	if p.MaxRatio-p.MinRatio < narrow {
		q = p.HeightMM / p.WidthMM
	}
	h := s.WidthMM * q
	if math.Abs(h-s.HeightMM) <= NearMM {
		s.HeightMM = h
	}
	return s
}

// Nearly says of a sheet that is folded as another what is off and what that does; empty
// where it is folded as it is.
func (p *Pattern) Nearly(s sheet.Sheet) string {
	off := s.HeightMM - p.AsFolded(s).HeightMM
	if math.Abs(off) < leastOffMM {
		return ""
	}
	if off < 0 {
		return fmt.Sprintf("This sheet is %s too low for its width, and is folded all the same: what should meet at the end may miss by as much. Take %s off its width first if you want it exact.", say.MM(-off, 1), say.MM(-off*s.WidthMM/s.HeightMM, 1))
	}
	return fmt.Sprintf("This sheet is %s too high for its width, and is folded all the same: what should meet at the end may miss by as much. Trim that off its upper edge first if you want it exact.", say.MM(off, 1))
}

// leastOffMM is less than anybody sees of a sheet.
const leastOffMM = 0.25

// unlike says how a sheet differs from the proportions that are required.
func (p *Pattern) unlike(s sheet.Sheet) string {
	if p.MaxRatio-p.MinRatio >= narrow {
		return fmt.Sprintf("%s needs a sheet %s to %s times as high as wide; this one is %s times", p.Title, sheet.Number(p.MinRatio), sheet.Number(p.MaxRatio), sheet.Number(s.Ratio()))
	}
	own, than := p.HeightMM/p.WidthMM, "wide"
	needs := "from a square"
	if math.Abs(own-1) > narrow {
		needs, than = fmt.Sprintf("from a sheet %s times as high as wide", sheet.Number(own)), "that"
	}
	off := s.HeightMM - s.WidthMM*own
	more := "higher"
	if off < 0 {
		more = "lower"
	}
	return fmt.Sprintf("%s is folded %s; this sheet is %s %s than %s", p.Title, needs, say.MM(math.Abs(off), 1), more, than)
}

// Takes tells whether a pattern may be folded from a sheet so many times as high as wide,
// by what it requires.
func (p *Pattern) Takes(ratio float64) bool {
	return p.MinRatio == 0 || ratio >= p.MinRatio-sameRatio && ratio <= p.MaxRatio+sameRatio
}
