// Package spread studies what small errors of the hand and the thickness of the
// paper do to the finished toy.
//
// In words: fold the same toy a thousand times with a hand that is off by a third
// of a millimetre here and there. Each time every corner ends somewhere else. How
// far they scatter, which fold is most to blame, and how much the two halves come
// to differ is what this package says. The layers, folds and their order stay
// those of the exact toy; only where things lie changes.
//
// The law: every creased line is off by two independent normal errors, square to
// it, at two spots half a short side of the sheet either way from the spot of the
// line nearest to where the middle of the flat sheet lay. The
// toy is folded again with each error in turn (sequence.Replay.WithErrors); at
// these sizes the answers are proportional to the errors, so a sample of all
// errors at once is the sum of the answers. Linear is an approximation, good to a
// few per cent for errors up to about 1 mm; a test compares it with folding every
// sample anew.
package spread

import (
	"math"
	"math/rand/v2"
	"runtime"
	"slices"
	"sync"

	"tussock/internal/fold"
	"tussock/internal/fold/shadow"
	"tussock/internal/geom"
	"tussock/internal/sequence"
)

// Hand is how exactly somebody folds: the standard deviation of a crease's ends.
type Hand struct {
	Name string
	MM   float64
}

// Adult is a careful grown-up's hand.
var Adult = Hand{"adult", 0.3}

// Hands are those that can be chosen.
var Hands = []Hand{Adult, {"child", 0.8}}

// FindHand is the hand of that name.
func FindHand(name string) (Hand, bool) {
	i := slices.IndexFunc(Hands, func(h Hand) bool { return h.Name == name })
	if i < 0 {
		return Hand{}, false
	}
	return Hands[i], true
}

// Class is how much a step's exactness matters at the end.
type Class string

// A step is critical when 1 mm off at it moves some landmark by CriticalMM or
// more, free when nothing moves by FreeMM, else normal. (A single plain fold
// moves what it carries by 2 mm.)
const (
	Critical   Class = "critical"
	Normal     Class = "normal"
	Free       Class = "free"
	CriticalMM       = 3.0
	FreeMM           = 1.0
)

// Step is what one step does to the spread.
type Step struct {
	No    int
	Share float64 // of the variance of all landmarks at the end, 0 to 1
	// The same for the centre of mass, and for the difference of left and right.
	ShareCoM, ShareLopsided float64
	PerMM                   float64 // how far the worst landmark moves for 1 mm of error here, mm
	Worst                   string  // that landmark
	Class                   Class   // computed; an author's own word stands beside it
	GapMM                   float64 // to leave for the thickness of the layers inside, mm
	Lines                   int     // creases made by hand in it
}

// Landmark is the scatter of one place.
type Landmark struct {
	Name  string
	At    geom.Vec // nominal, folded plane
	SX    float64  // standard deviations, mm
	SY    float64
	RMSMM float64
}

// Spread is the study of one toy.
type Spread struct {
	SigmaMM   float64
	Samples   int
	Seed      uint64
	CoM       Landmark
	Landmarks []Landmark
	Steps     []Step
	// Lopsided is the standard deviation of the difference between the two halves:
	// the root mean square, over pairs of landmarks that mirror each other, of how
	// far they come to lie from each other's mirror image. Pairs is how many.
	LopsidedMM float64
	Pairs      int
	BoxMM      [2]float64 // mean width and height
	BoxSD      [2]float64
	StretchMM  float64 // mean of the worst mismatch at a hinge: what the paper must give
	TightMM    float64 // the same from thickness alone
	Tight      bool    // above TightLimitMM
}

// TightLimitMM is the mismatch from thickness above which a toy binds.
const TightLimitMM = 0.5

// one puts a unit of error on one end of one line.
type one struct {
	line, end int
	mm        float64
}

func (e one) Slip(n int) (a, b float64) {
	if n != e.line {
		return 0, 0
	}
	if e.end == 0 {
		return e.mm, 0
	}
	return 0, e.mm
}
func (one) Creep(*fold.State, fold.Hinge) float64 { return 0 }

// thick puts the thickness of the layers inside on every fold.
type thick struct{}

func (thick) Slip(int) (a, b float64) { return 0, 0 }

// Creep is half of (π/2)·n·t: a line moved by d moves what it carries by 2d.
func (thick) Creep(s *fold.State, h fold.Hinge) float64 {
	return shadow.CreepMM(inside(s, h), s.Sheet.ThicknessMM) / 2
}

// inside counts the layers strictly between the two pieces of a fold, at its
// middle.
func inside(s *fold.State, h fold.Hinge) int {
	a, b := h.A, h.B
	if s.Above(a, b) < 0 {
		a, b = b, a
	}
	iso := s.F[h.A].Iso
	m := iso.Apply(geom.Mid(h.P, h.Q))
	in := s.Folded(h.A).Centroid().Sub(m).Unit()
	p := m.Add(in.Scale(0.05))
	n := 0
	for i := range s.F {
		c := fold.FacetID(i)
		if c != a && c != b && s.Above(a, c) > 0 && s.Above(c, b) > 0 && s.Folded(c).Contains(p, 0) {
			n++
		}
	}
	return n
}

// probeMM is the error that each line is tried with: small enough for straight
// answers, large against rounding.
const probeMM = 0.02

// Of studies a replay without errors of its own: samples toys folded by a hand of
// the given standard deviation. Same seed, same result.
func Of(r *sequence.Replay, sigmaMM float64, samples int, seed uint64) (*Spread, error) {
	base, err := r.WithErrors(one{line: -1})
	if err != nil {
		return nil, err
	}
	names, at := places(base)
	lines := r.CreaseLines()
	answers, err := probe(r, base, names, len(lines))
	if err != nil {
		return nil, err
	}
	out := &Spread{SigmaMM: sigmaMM, Samples: samples, Seed: seed}
	st := study{r: r, names: names, at: at, lines: lines, answers: answers, base: base}
	st.corners()
	st.steps(out)
	st.sample(out)
	thickness, err := r.WithErrors(thick{})
	if err != nil {
		return nil, err
	}
	for i := range out.Steps {
		out.Steps[i].GapMM = thickness.Creeps[out.Steps[i].No]
	}
	out.TightMM = thickness.Stretch
	out.Tight = out.TightMM > TightLimitMM
	return out, nil
}

func places(o *sequence.Outcome) (names []string, at []geom.Vec) {
	for n := range o.Landmarks {
		names = append(names, n)
	}
	slices.Sort(names)
	for _, n := range names {
		at = append(at, o.Landmarks[n])
	}
	return names, at
}

// answer is how everything moves for 1 mm of error at one end of one line.
type answer struct {
	land    []geom.Vec
	com     geom.Vec
	iso     []geom.Iso2 // of pieces, absolute, at the probe's error
	stretch float64
}

// probe folds the toy once for each end of each line, on all cores.
func probe(r *sequence.Replay, base *sequence.Outcome, names []string, lines int) ([]answer, error) {
	out := make([]answer, 2*lines)
	errs := make([]error, 2*lines)
	var wg sync.WaitGroup
	work := make(chan int)
	for range runtime.GOMAXPROCS(0) {
		wg.Go(func() {
			for i := range work {
				o, err := r.WithErrors(one{i / 2, i % 2, probeMM})
				if err != nil {
					errs[i] = err
					continue
				}
				a := answer{com: o.CoM.Sub(base.CoM).Scale(1 / probeMM), iso: o.Shadow.Iso, stretch: o.Stretch / probeMM}
				for _, n := range names {
					a.land = append(a.land, o.Landmarks[n].Sub(base.Landmarks[n]).Scale(1/probeMM))
				}
				out[i] = a
			}
		})
	}
	for i := range out {
		work <- i
	}
	close(work)
	wg.Wait()
	for _, e := range errs {
		if e != nil {
			return nil, e
		}
	}
	return out, nil
}

type study struct {
	r       *sequence.Replay
	names   []string
	at      []geom.Vec
	lines   []int // step of each line
	answers []answer
	base    *sequence.Outcome
	rim     []geom.Vec   // corners of pieces, nominal
	rimBy   [][]geom.Vec // by answer, how each moves
}

// corners are the corners of pieces that can decide the box: those on the hull,
// and all within a few millimetres of it.
func (st *study) corners() {
	s := st.r.Final()
	box := s.Box()
	const band = 8.0
	type spot struct{ f, k int }
	var spots []spot
	for f := range s.F {
		for k, v := range s.F[f].Poly {
			p := s.F[f].Iso.Apply(v)
			if p.X < box.MinX+band || p.X > box.MaxX-band || p.Y < box.MinY+band || p.Y > box.MaxY-band {
				spots = append(spots, spot{f, k})
				st.rim = append(st.rim, p)
			}
		}
	}
	st.rimBy = make([][]geom.Vec, len(st.answers))
	for i, a := range st.answers {
		for _, q := range spots {
			v := s.F[q.f].Poly[q.k]
			st.rimBy[i] = append(st.rimBy[i], a.iso[q.f].Apply(v).Sub(st.base.Shadow.Iso[q.f].Apply(v)).Scale(1/probeMM))
		}
	}
}

// steps gives each step its share and class.
func (st *study) steps(out *Spread) {
	var total, com, lop float64
	pairs := st.pairs()
	for _, d := range st.r.Steps {
		s := Step{No: d.No, Class: Free}
		for l, step := range st.lines {
			if step != d.No {
				continue
			}
			s.Lines++
			a, b := st.answers[2*l], st.answers[2*l+1]
			s.ShareCoM += a.com.Dot(a.com) + b.com.Dot(b.com)
			s.ShareLopsided += st.lopsided(pairs, a.land) + st.lopsided(pairs, b.land)
			for i, n := range st.names {
				s.Share += a.land[i].Dot(a.land[i]) + b.land[i].Dot(b.land[i])
				// The whole line 1 mm off: both ends.
				if move := a.land[i].Add(b.land[i]).Len(); move > s.PerMM {
					s.PerMM, s.Worst = move, n
				}
			}
		}
		switch {
		case s.PerMM >= CriticalMM:
			s.Class = Critical
		case s.PerMM > FreeMM || d.Character == sequence.Soft || d.Character == sequence.Bend:
			// How soft a crease is pressed is for how the toy moves: its place is as well.
			s.Class = Normal
		}
		total, com, lop = total+s.Share, com+s.ShareCoM, lop+s.ShareLopsided
		out.Steps = append(out.Steps, s)
	}
	for i := range out.Steps {
		for _, q := range []struct {
			share *float64
			of    float64
		}{{&out.Steps[i].Share, total}, {&out.Steps[i].ShareCoM, com}, {&out.Steps[i].ShareLopsided, lop}} {
			if q.of > 1e-12 {
				*q.share /= q.of
			}
		}
	}
}

// sample draws toys and gathers their scatter.
func (st *study) sample(out *Spread) {
	pairs := st.pairs()
	out.Pairs = len(pairs)
	rnd := rand.New(rand.NewPCG(out.Seed, 0x7455))
	n := len(st.names)
	sum, sq := make([]geom.Vec, n+1), make([]geom.Vec, n+1)
	var box, boxSq [2]float64
	var lop, stretch float64
	e := make([]float64, len(st.answers))
	move := make([]geom.Vec, n+1)
	rim := make([]geom.Vec, len(st.rim))
	for range out.Samples {
		clear(move)
		copy(rim, st.rim)
		worst := 0.0
		for i := range e {
			e[i] = rnd.NormFloat64() * out.SigmaMM
			a := &st.answers[i]
			for k, d := range a.land {
				move[k] = move[k].Add(d.Scale(e[i]))
			}
			move[n] = move[n].Add(a.com.Scale(e[i]))
			for k, d := range st.rimBy[i] {
				rim[k] = rim[k].Add(d.Scale(e[i]))
			}
			worst += a.stretch * a.stretch * e[i] * e[i]
		}
		stretch += math.Sqrt(worst)
		for k, m := range move {
			sum[k] = sum[k].Add(m)
			sq[k] = sq[k].Add(geom.Vec{X: m.X * m.X, Y: m.Y * m.Y})
		}
		b := geom.EmptyBox().Grow(rim...)
		for k, v := range [2]float64{b.Width(), b.Height()} {
			box[k] += v
			boxSq[k] += v * v
		}
		lop += st.lopsided(pairs, move)
	}
	k := 1 / float64(out.Samples)
	land := func(i int, name string, at geom.Vec) Landmark {
		m := sum[i].Scale(k)
		vx, vy := sq[i].X*k-m.X*m.X, sq[i].Y*k-m.Y*m.Y
		return Landmark{name, at, math.Sqrt(math.Max(vx, 0)), math.Sqrt(math.Max(vy, 0)), math.Sqrt(math.Max(vx+vy, 0))}
	}
	for i, name := range st.names {
		out.Landmarks = append(out.Landmarks, land(i, name, st.at[i]))
	}
	out.CoM = land(n, "", st.base.CoM)
	for i := range 2 {
		out.BoxMM[i] = box[i] * k
		out.BoxSD[i] = math.Sqrt(math.Max(boxSq[i]*k-out.BoxMM[i]*out.BoxMM[i], 0))
	}
	out.StretchMM = stretch * k
	if len(pairs) > 0 {
		out.LopsidedMM = math.Sqrt(lop * k / float64(len(pairs)))
	}
}

// pairs are landmarks that mirror each other about the sheet's upright middle.
func (st *study) pairs() [][2]int {
	var out [][2]int
	w := st.r.Sheet.WidthMM
	for i, a := range st.names {
		p := st.r.Landmarks[a]
		for j, b := range st.names {
			q := st.r.Landmarks[b]
			if p.X < w/2-1e-6 && q.Dist(geom.Vec{X: w - p.X, Y: p.Y}) < 1e-6 {
				out = append(out, [2]int{i, j})
				break
			}
		}
	}
	return out
}

// lopsided is the sum over pairs of the squared mismatch of the two halves. The
// toy is mirrored, or lies folded in half with both halves upon each other.
func (st *study) lopsided(pairs [][2]int, move []geom.Vec) float64 {
	if len(pairs) == 0 {
		return 0
	}
	onTop := true // folded in half
	for _, p := range pairs {
		onTop = onTop && st.at[p[0]].Dist(st.at[p[1]]) < 1e-6
	}
	var sum float64
	for _, p := range pairs {
		a, b := move[p[0]], move[p[1]]
		if !onTop {
			a.X = -a.X
		}
		sum += b.Sub(a).Dot(b.Sub(a))
	}
	return sum
}
