package sequence

import (
	"math"
	"slices"

	"tussock/internal/fold"
	"tussock/internal/geom"
)

// Arithmetic stands wherever a number does: on knobs and params, on what the sheet
// measures, and on distances between landmarks. Angles are degrees.

// NumSum is A Op B; Op is one of + - * /.
type NumSum struct {
	Op   byte
	A, B NumExpr
}

// NumOfSheet is a measure of the sheet: width, height or thickness, mm.
type NumOfSheet string

// NumDistance is how far two landmarks lie apart as they lie now, mm.
type NumDistance struct{ P, Q PointExpr }

// NumCall is a function of numbers, as Functions has them.
type NumCall struct {
	Name string
	Args []NumExpr
}

// SheetNumbers are the measures of the sheet by name.
var SheetNumbers = []string{"width", "height", "thickness"}

// Function is a function of numbers; Most is 0 for any number of arguments.
type Function struct {
	Least, Most int
	of          func(x []float64) float64
}

// Functions are those of the language by name; angles are degrees.
var Functions = map[string]Function{
	"min":   {1, 0, slices.Min[[]float64]},
	"max":   {1, 0, slices.Max[[]float64]},
	"abs":   {1, 1, func(x []float64) float64 { return math.Abs(x[0]) }},
	"floor": {1, 1, func(x []float64) float64 { return math.Floor(x[0] + wholly) }},
	"sqrt":  {1, 1, func(x []float64) float64 { return math.Sqrt(x[0]) }},
	"sin":   {1, 1, func(x []float64) float64 { return math.Sin(geom.Rad(x[0])) }},
	"cos":   {1, 1, func(x []float64) float64 { return math.Cos(geom.Rad(x[0])) }},
	"tan":   {1, 1, func(x []float64) float64 { return math.Tan(geom.Rad(x[0])) }},
	"asin":  {1, 1, func(x []float64) float64 { return geom.Deg(math.Asin(x[0])) }},
	"acos":  {1, 1, func(x []float64) float64 { return geom.Deg(math.Acos(x[0])) }},
	"atan":  {1, 1, func(x []float64) float64 { return geom.Deg(math.Atan(x[0])) }},
	"atan2": {2, 2, func(x []float64) float64 { return geom.Deg(math.Atan2(x[0], x[1])) }},
}

// wholly is how far below a whole number still counts as it: quotients are not exact.
const wholly = 1e-9

// mostNumber bounds results: beyond it a tangent or quotient has run away.
const mostNumber = 1e6

// Num adds, subtracts, multiplies or divides.
func (e NumSum) Num(r *Course) float64 {
	a, b := e.A.Num(r), e.B.Num(r)
	switch e.Op {
	case '+':
		return r.number(a + b)
	case '-':
		return r.number(a - b)
	case '*':
		return r.number(a * b)
	}
	if b == 0 {
		return r.noNumber("it divides by 0")
	}
	return r.number(a / b)
}

// Num measures the sheet at hand.
func (e NumOfSheet) Num(r *Course) float64 {
	switch s := r.Out.Sheet; e {
	case "width":
		return s.WidthMM
	case "height":
		return s.HeightMM
	default:
		return s.ThicknessMM
	}
}

// Num measures the distance.
func (e NumDistance) Num(r *Course) float64 {
	p, err := e.P.Folded(r)
	if err != nil {
		return r.faulty(err)
	}
	q, err := e.Q.Folded(r)
	if err != nil {
		return r.faulty(err)
	}
	return p.Dist(q)
}

// Num is the value of the function.
func (e NumCall) Num(r *Course) float64 {
	x := make([]float64, len(e.Args))
	for i, a := range e.Args {
		x[i] = a.Num(r)
	}
	return r.number(Functions[e.Name].of(x))
}

// Constant is a number that depends on nothing; depends is true for others. The error says
// that it has no result.
func Constant(e NumExpr) (v float64, depends bool, err error) {
	if !constant(e) {
		return 0, true, nil
	}
	var r Course
	v = e.Num(&r)
	return v, false, r.fault
}

func constant(e NumExpr) bool {
	switch e := e.(type) {
	case NumLit:
		return true
	case NumSum:
		return constant(e.A) && constant(e.B)
	case NumCall:
		return !slices.ContainsFunc(e.Args, func(a NumExpr) bool { return !constant(a) })
	}
	return false
}

// varies tells of numbers that they depend on knobs, sheet or folds while nothing is folded
// yet: words made then must not tell their values.
func (r *Course) varies(all ...NumExpr) bool {
	return r.State == nil && slices.ContainsFunc(all, func(e NumExpr) bool { return !constant(e) })
}

// number keeps a result, or the fault that it is none.
func (r *Course) number(v float64) float64 {
	if math.IsNaN(v) || math.Abs(v) > mostNumber {
		return r.noNumber("it comes to no usable number")
	}
	return v
}

func (r *Course) noNumber(why string) float64 {
	return r.faulty(fold.Errorf(fold.CodeKnob, "what is reckoned here has no result: %s", why))
}

// faulty keeps the first fault of a statement's arithmetic; 0 stands for the number until
// the statement is given up.
func (r *Course) faulty(err error) float64 {
	if r.fault == nil {
		r.fault = err
	}
	return 0
}

// reckoned is the fault of the arithmetic of a statement, else its own error.
func (r *Course) reckoned(err error) error {
	if r.fault != nil {
		err, r.fault = r.fault, nil
	}
	return err
}

// Derived is a param that is reckoned from others.
type Derived struct {
	Name string
	Line int
	Is   NumExpr
}

// derive reckons the params that depend on knobs and the sheet.
func (r *Course) derive() error {
	for _, d := range r.Pat.Derived {
		r.Values[d.Name] = d.Is.Num(r)
		if err := r.reckoned(nil); err != nil {
			return placed(err, 0, d.Line)
		}
	}
	return nil
}
