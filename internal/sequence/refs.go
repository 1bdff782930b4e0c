package sequence

import (
	"math"

	"tussock/internal/geom"
	"tussock/internal/sequence/basis"
)

// Measured is a landmark that is found by measuring a length from another one.
type Measured struct {
	From PointExpr
	At   geom.Vec // where that is, in the plane of the piece that holds the landmark, sheet coordinates
}

// listening tells whether what is looked up now places the step under way.
func (r *Course) listening() bool {
	return r.step != nil && r.hushed == 0 && r.mute == 0 && r.Sh == nil && r.State == r.step.Before
}

// ref keeps what the step under way is placed by.
func (r *Course) ref(q basis.Ref) {
	measured := q.Kind == basis.Length || q.Kind == basis.AnAngle
	if !r.listening() || r.asides > 0 && !measured {
		return
	}
	r.step.Refs = basis.Add(r.step.Refs, q)
}

// aside looks up what is only on the way to what places a step: of it one sees the result,
// and what is measured. Call the function it gives to end that.
func (r *Course) aside() func() {
	r.asides++
	return func() { r.asides-- }
}

// Lax tells whether the sheet is not what the pattern asks for, and the replay goes on.
func (r *Course) Lax() bool { return r.lax }

// Unseen is where a place lies that a step is not placed by.
func (r *Course) Unseen(e PointExpr) (geom.Vec, error) {
	r.hushed++
	defer func() { r.hushed-- }()
	return e.Folded(r)
}

// refNamed keeps a landmark, and how far from where it was measured.
func (r *Course) refNamed(name string, at geom.Vec) {
	if !r.listening() {
		return
	}
	r.ref(basis.Ref{Kind: basis.Point, Name: name, At: at})
	m, ok := r.Out.Measures[name]
	if !ok {
		return
	}
	p := r.Points[name]
	on := r.State.FacetsAtSheet(p)
	if len(on) == 0 {
		return
	}
	from := r.State.F[on[0]].Iso.Apply(m.At)
	var now geom.Vec
	err := r.quietly(func() (err error) { now, err = r.Unseen(m.From); return err })
	if err != nil || now.Dist(from) > geom.OnPaper {
		return // what it was measured from lies elsewhere by now
	}
	r.RefLength(from, at)
}

// measure keeps how a landmark was measured, once it is pinned to the paper.
func (r *Course) measure(name string, e PointExpr, at geom.Vec) {
	p, ok := e.(PointPart)
	if r.Sh != nil || !ok || !p.Mm && written(p.K) { // runs with errors share the replay
		return
	}
	on := r.State.FacetsAtSheet(at)
	if len(on) == 0 {
		return
	}
	iso := r.State.F[on[0]].Iso
	if err := r.quietly(func() error {
		from, err := p.A.Folded(r)
		r.Out.Measures[name] = Measured{From: p.A, At: iso.Inverse().Apply(from)}
		return err
	}); err != nil {
		delete(r.Out.Measures, name)
	}
}

// written tells whether a number is written, and a part of a way that folding finds.
func written(e NumExpr) bool {
	v, depends, err := Constant(e)
	return !depends && err == nil && basis.Folded(v)
}

// RefLength keeps a length of the step under way.
func (r *Course) RefLength(from, to geom.Vec) {
	if mm := from.Dist(to); mm > geom.Distinct {
		r.ref(basis.Ref{Kind: basis.Length, At: to, Along: geom.Segment{A: from, B: to}, Value: mm})
	}
}

// refAngle keeps an angle between two lines through a place.
func (r *Course) refAngle(about geom.Vec, from, to geom.Line, deg float64, toward geom.Vec) {
	if q, ok := basis.Angle(about, from, to, deg, toward, math.Max(r.Box.Width(), r.Box.Height())); ok {
		r.ref(q)
	}
}

// Quote is a number that the words of a step quote: {gap}, as it comes out on the sheet at
// hand.
type Quote struct {
	Text string // as it stands in the words, with its braces
	Is   NumExpr
	Unit string // mm, deg, g or ""
	// Says is what stands there unless the number is 0, where words are said for that: [gap: …].
	Says string
}

// say fills the words of a step with the numbers that they quote.
func (r *Course) say(d *Done) error {
	d.Say, d.Looks = d.Step.Say, d.Step.Looks
	return r.quietly(func() error {
		for _, q := range d.Quotes {
			fill := basis.Filling(q.Text, q.Says, q.Is.Num(r), q.Unit)
			d.Say, d.Looks = fill.Replace(d.Say), fill.Replace(d.Looks)
		}
		return r.reckoned(nil)
	})
}

// quotesLike tells whether a statement is no step with words that quote numbers, or one
// whose words are those of another pattern.
func (p *Pattern) quotesLike(o *Pattern, stmt int) bool {
	a, ok := p.Stmts[stmt].(StepStmt)
	if !ok || len(p.Steps[a.Step].Quotes) == 0 {
		return true
	}
	b, ok := o.Stmts[stmt].(StepStmt)
	return ok && p.Steps[a.Step].Say == o.Steps[b.Step].Say && p.Steps[a.Step].Looks == o.Steps[b.Step].Looks
}
