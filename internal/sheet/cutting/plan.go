// Package cutting plans how pieces are cut from the papers at hand.
//
// In words: say which pieces are wanted and which sheets lie there. Every cut goes
// right across what is in the hand, as scissors on a fold and a guillotine do. The
// plan says where each piece lies, in which order to cut, and what is left over.
//
// The search is exact for what guillotine cuts can do, up to a bound on the number
// of ways to choose pieces: for every choice of pieces it keeps the smallest blocks
// they can be cut from (no block both wider and higher than another), put together
// from smaller blocks side by side or one above the other. Beyond that bound pieces
// are planned in handfuls, the largest first.
package cutting

import (
	"cmp"
	"fmt"
	"iter"
	"math"
	"reflect"
	"slices"

	"tussock/internal/geom"
	"tussock/internal/given"
	"tussock/internal/say"
	"tussock/internal/sheet"
)

// Grain is the direction in which the fibres of a paper or piece run.
type Grain int8

const (
	AnyGrain   Grain = iota
	AlongWide        // along the width
	AlongHigh        // along the height
	sidewaysOf       // not a direction: how many there are
)

// Piece is a shape wanted, by the rectangle that holds it. AreaMM2 is its own
// area where it is less (an n-gon, a triangle); 0 means the rectangle's.
type Piece struct {
	Name              string
	WidthMM, HeightMM float64
	AreaMM2           float64
	Count             int
	Grain             Grain
	// Shapes are the pieces within the rectangle that are no rectangles, counter-
	// clockwise from its lower left corner; nil for the rectangle itself.
	Shapes []geom.Polygon
}

// Paper is a kind of sheet at hand, Count of them.
type Paper struct {
	Name              string
	WidthMM, HeightMM float64
	Count             int
	Grain             Grain
}

// Order is what is to be planned. KerfMM is lost at each cut: a saw's width, or
// the room that a torn edge needs.
type Order struct {
	Pieces []Piece
	Papers []Paper
	KerfMM float64
}

// Bounds of an order.
const (
	MaxPieces = 500
	MaxKinds  = 12
	MaxSheets = 500
	MaxKerfMM = 20.0
	// maxStates bounds the choices of pieces that are looked at exactly.
	maxStates = 6000
)

// Placed is a piece on a sheet, or what is left over; mm from the sheet's lower
// left corner.
type Placed struct {
	Piece             int // index in Order.Pieces; -1 for a leftover
	X, Y              float64
	WidthMM, HeightMM float64
	Turned            bool
}

// Cut is one cut right across a part of a sheet.
type Cut struct {
	Upright    bool
	AtMM       float64 // x of an upright cut, y of a level one
	FromMM     float64
	ToMM       float64
	PartsWords string
}

// Sheet is one sheet that is cut.
type Sheet struct {
	Paper     int // index in Order.Papers
	Pieces    []Placed
	Leftovers []Placed
	Cuts      []Cut // in the order in which they are made
}

// Line is the cut on its sheet.
func (c Cut) Line() geom.Segment {
	if c.Upright {
		return geom.Segment{A: geom.Vec{X: c.AtMM, Y: c.FromMM}, B: geom.Vec{X: c.AtMM, Y: c.ToMM}}
	}
	return geom.Segment{A: geom.Vec{X: c.FromMM, Y: c.AtMM}, B: geom.Vec{X: c.ToMM, Y: c.AtMM}}
}

// Words say where a cut goes.
func (c Cut) Words() string {
	which, edge := "Level", "lower"
	if c.Upright {
		which, edge = "Upright", "left"
	}
	return fmt.Sprintf("%s cut, %s from the %s edge of the sheet, %s long", which, say.MM(c.AtMM, 1), edge, say.MM(c.ToMM-c.FromMM, 1))
}

// Alike is a sheet that is cut, and how many are cut just so.
type Alike struct {
	Sheet
	Count int
}

// Grouped are the sheets of a plan, those cut alike together, the commonest first.
func (p *Plan) Grouped() []Alike {
	var out []Alike
	for _, s := range p.Sheets {
		i := slices.IndexFunc(out, func(a Alike) bool { return reflect.DeepEqual(a.Sheet, s) })
		if i < 0 {
			out = append(out, Alike{s, 1})
			continue
		}
		out[i].Count++
	}
	slices.SortStableFunc(out, func(a, b Alike) int { return cmp.Compare(b.Count, a.Count) })
	return out
}

// Plan is the answer to an order.
type Plan struct {
	Sheets   []Sheet
	Missing  []int   // by piece, how many do not fit on the papers at hand
	Yield    float64 // area of pieces over area of sheets opened, 0 to 1
	PieceMM2 float64
	PaperMM2 float64
	Exact    bool // no guillotine plan opens less paper
}

// Make plans an order. Errors are *given.Error.
func Make(o Order) (*Plan, error) {
	if err := o.check(); err != nil {
		return nil, err
	}
	p := &planner{o: o}
	return p.plan(), nil
}

func (o Order) check() error {
	bad := func(field, value, want string) error {
		return &given.Error{Field: field, Value: value, Want: want}
	}
	told := func(field, said, want string) error {
		return &given.Error{Field: field, Want: want, Said: said}
	}
	sideWords := map[string]string{"width_mm": "width", "height_mm": "height"}
	if !(o.KerfMM >= 0 && o.KerfMM <= MaxKerfMM) {
		return bad("kerf_mm", sheet.Number(o.KerfMM), fmt.Sprintf("0 to %s", say.MM(MaxKerfMM, 1)))
	}
	if len(o.Pieces) == 0 || len(o.Pieces) > MaxKinds {
		return bad("pieces", fmt.Sprint(len(o.Pieces)), fmt.Sprintf("1 to %d kinds of pieces", MaxKinds))
	}
	if len(o.Papers) == 0 || len(o.Papers) > MaxKinds {
		return bad("papers", fmt.Sprint(len(o.Papers)), fmt.Sprintf("1 to %d papers", MaxKinds))
	}
	total := 0
	side := sheet.Range{Min: 5, Max: sheet.SideRange.Max, Unit: "mm"}
	for i, p := range o.Pieces {
		for name, v := range map[string]float64{"width_mm": p.WidthMM, "height_mm": p.HeightMM} {
			if !side.Holds(v) {
				return told(fmt.Sprintf("pieces[%d].%s", i, name), fmt.Sprintf("The %s of row %d of the pieces is %s", sideWords[name], i+1, say.MM(v, 1)), side.String())
			}
		}
		if p.Count < 1 {
			return told(fmt.Sprintf("pieces[%d].count", i), fmt.Sprintf("Row %d of the pieces is wanted %d times", i+1, p.Count), "1 time or more")
		}
		if p.Grain < AnyGrain || p.Grain >= sidewaysOf {
			return bad(fmt.Sprintf("pieces[%d].grain", i), fmt.Sprint(p.Grain), "any, along the width or along the height")
		}
		total += p.Count
	}
	if total > MaxPieces {
		return bad("pieces", fmt.Sprint(total), fmt.Sprintf("at most %d pieces in all", MaxPieces))
	}
	for i, p := range o.Papers {
		for name, v := range map[string]float64{"width_mm": p.WidthMM, "height_mm": p.HeightMM} {
			if !sheet.SideRange.Holds(v) {
				return bad(fmt.Sprintf("papers[%d].%s", i, name), sheet.Number(v), sheet.SideRange.String())
			}
		}
		if p.Count < 1 || p.Count > MaxSheets {
			return bad(fmt.Sprintf("papers[%d].count", i), fmt.Sprint(p.Count), fmt.Sprintf("1 to %d", MaxSheets))
		}
	}
	return nil
}

// block is a way to cut a choice of pieces from a rectangle.
type block struct {
	w, h   float64
	piece  int // a single piece, or -1
	turned bool
	beside bool // two blocks side by side, else one above the other
	a, b   *block
}

type planner struct {
	o     Order
	radix []int // by kind, how a choice of pieces is written as one number
	most  int   // blocks kept for a choice
	// dropped tells that a block was dropped for want of room: not exact.
	dropped bool
}

// plan takes pieces in handfuls that can be looked at exactly.
func (p *planner) plan() *Plan {
	left := make([]int, len(p.o.Pieces))
	for i, q := range p.o.Pieces {
		left[i] = q.Count
	}
	stock := make([]int, len(p.o.Papers))
	for i, q := range p.o.Papers {
		stock[i] = q.Count
	}
	out := &Plan{Exact: true, Missing: make([]int, len(left))}
	byArea := make([]int, len(left))
	for i := range byArea {
		byArea[i] = i
	}
	slices.SortStableFunc(byArea, func(a, b int) int {
		x, y := p.o.Pieces[a], p.o.Pieces[b]
		return cmp.Compare(y.WidthMM*y.HeightMM, x.WidthMM*x.HeightMM)
	})
	for {
		hand := make([]int, len(left))
		states, any := 1, false
		for _, i := range byArea {
			for left[i] > 0 && states/(hand[i]+1)*(hand[i]+2) <= maxStates {
				states = states / (hand[i] + 1) * (hand[i] + 2)
				hand[i]++
				left[i]--
				any = true
			}
		}
		if !any {
			break
		}
		for _, n := range left {
			if n > 0 {
				out.Exact = false
			}
		}
		before := len(out.Sheets)
		p.handful(hand, stock, out)
		p.again(before, left, stock, out)
	}
	out.Exact = out.Exact && !p.dropped
	for i, q := range p.o.Pieces {
		area := q.AreaMM2
		if area == 0 {
			area = q.WidthMM * q.HeightMM
		}
		out.PieceMM2 += area * float64(q.Count-out.Missing[i])
	}
	for _, s := range out.Sheets {
		q := p.o.Papers[s.Paper]
		out.PaperMM2 += q.WidthMM * q.HeightMM
	}
	if out.PaperMM2 > 0 {
		out.Yield = out.PieceMM2 / out.PaperMM2
	}
	return out
}

// again cuts what came of a handful once more as often as pieces and papers last: of many
// alike, most sheets are alike. The sheet that is filled least is given back, unless it is
// the only one or nothing is left to fill it with.
func (p *planner) again(from int, left, stock []int, out *Plan) {
	if !slices.ContainsFunc(left, func(n int) bool { return n > 0 }) || len(out.Sheets) == from {
		return
	}
	full := func(s Sheet) float64 {
		q := p.o.Papers[s.Paper]
		a := 0.0
		for _, x := range s.Pieces {
			a += x.WidthMM * x.HeightMM
		}
		return a / (q.WidthMM * q.HeightMM)
	}
	fresh := out.Sheets[from:]
	slices.SortStableFunc(fresh, func(a, b Sheet) int { return cmp.Compare(full(b), full(a)) })
	if n := len(fresh); n > 1 {
		for _, x := range fresh[n-1].Pieces {
			left[x.Piece]++
		}
		stock[fresh[n-1].Paper]++
		out.Sheets, fresh = out.Sheets[:from+n-1], fresh[:n-1]
	}
	for _, s := range slices.Clone(fresh) {
		needs := make([]int, len(left))
		for _, x := range s.Pieces {
			needs[x.Piece]++
		}
		for stock[s.Paper] > 0 && !slices.ContainsFunc(p.kinds(needs), func(i int) bool { return left[i] < needs[i] }) {
			for i, n := range needs {
				left[i] -= n
			}
			stock[s.Paper]--
			out.Sheets = append(out.Sheets, s)
		}
	}
}

// kinds are the pieces that a choice holds any of.
func (p *planner) kinds(of []int) []int {
	var out []int
	for i, n := range of {
		if n > 0 {
			out = append(out, i)
		}
	}
	return out
}

// handful plans a choice of pieces on the sheets left, opening as little paper as
// can be, and takes the sheets from the stock.
func (p *planner) handful(hand, stock []int, out *Plan) {
	p.radix = make([]int, len(hand))
	total := 1
	for i, n := range hand {
		p.radix[i] = total
		total *= n + 1
	}
	p.most = blocksKept(total)
	byGrain := map[Grain][][]*block{}
	for _, q := range p.o.Papers {
		if byGrain[q.Grain] == nil {
			byGrain[q.Grain] = p.blocks(hand, total, q.Grain)
		}
	}
	// The least paper for every choice, sheet kinds used within their stock.
	best := make([]cost, total)
	for s := range best {
		best[s] = cost{area: math.Inf(1)}
	}
	best[0] = cost{used: make([]int, len(stock))}
	fits := make([][]*block, len(p.o.Papers)) // by paper and choice, the block that fits
	for k, q := range p.o.Papers {
		fits[k] = make([]*block, total)
		for s := 1; s < total; s++ {
			for _, b := range byGrain[q.Grain][s] {
				if b.w <= q.WidthMM+1e-9 && b.h <= q.HeightMM+1e-9 {
					fits[k][s] = b
					break
				}
			}
		}
	}
	for s := 1; s < total; s++ {
		p.cover(s, hand, stock, fits, best)
	}
	goal := total - 1
	if math.IsInf(best[goal].area, 1) { // not all fit: as much as can be
		most := -1.0
		for s := range best {
			if !math.IsInf(best[s].area, 1) && p.area(s, hand) > most+1e-9 {
				most, goal = p.area(s, hand), s
			}
		}
		for i, n := range p.digits(total-1, hand) {
			out.Missing[i] += n - p.digits(goal, hand)[i]
		}
	}
	for s := goal; s != 0; s = best[s].rest {
		k, c := best[s].paper, best[s].choice
		out.Sheets = append(out.Sheets, p.laid(k, fits[k][c]))
		stock[k]--
	}
}

type cost struct {
	area   float64
	used   []int
	paper  int
	choice int
	rest   int
}

// cover finds the least paper for a choice: one sheet with part of it, the rest as
// found before. The sheet holds the lowest kind of piece left, so that no two
// orders of the same sheets are both looked at.
func (p *planner) cover(s int, hand, stock []int, fits [][]*block, best []cost) {
	for c := range p.parts(s, hand) {
		rest := s - c
		if math.IsInf(best[rest].area, 1) {
			continue
		}
		for k, q := range p.o.Papers {
			if fits[k][c] == nil || best[rest].used[k] >= stock[k] {
				continue
			}
			if a := best[rest].area + q.WidthMM*q.HeightMM; a < best[s].area-1e-9 {
				used := slices.Clone(best[rest].used)
				used[k]++
				best[s] = cost{a, used, k, c, rest}
			}
		}
	}
}

func (p *planner) digits(s int, hand []int) []int {
	out := make([]int, len(hand))
	for i, n := range hand {
		out[i] = s / p.radix[i] % (n + 1)
	}
	return out
}

// parts are all choices contained in a choice but the empty one.
func (p *planner) parts(s int, hand []int) iter.Seq[int] {
	return func(yield func(int) bool) {
		d := p.digits(s, hand)
		at := make([]int, len(d))
		for c := 0; ; {
			k := 0
			for k < len(d) && at[k] == d[k] { // carry
				c -= at[k] * p.radix[k]
				at[k] = 0
				k++
			}
			if k == len(d) {
				return
			}
			at[k]++
			c += p.radix[k]
			if !yield(c) {
				return
			}
		}
	}
}

func (p *planner) area(s int, hand []int) float64 {
	var a float64
	for i, n := range p.digits(s, hand) {
		a += float64(n) * p.o.Pieces[i].WidthMM * p.o.Pieces[i].HeightMM
	}
	return a
}

// blocksKept bounds the blocks kept for each choice of pieces, by how many choices
// there are; beyond it the largest are dropped, and the plan may not be exact.
func blocksKept(choices int) int {
	switch {
	case choices > 2000:
		return 2
	case choices > 600:
		return 8
	}
	return 60
}

// blocks are, for every choice of pieces, the smallest rectangles that it can be
// cut from, for papers of a grain.
func (p *planner) blocks(hand []int, total int, grain Grain) [][]*block {
	out := make([][]*block, total)
	var w, h float64 // nothing larger than every paper is of use
	for _, q := range p.o.Papers {
		w, h = math.Max(w, q.WidthMM), math.Max(h, q.HeightMM)
	}
	for i := range hand {
		if hand[i] == 0 {
			continue
		}
		q := p.o.Pieces[i]
		s := p.radix[i]
		if allowed(q.Grain, grain, false) {
			out[s] = p.keep(out[s], &block{w: q.WidthMM, h: q.HeightMM, piece: i}, w, h)
		}
		if allowed(q.Grain, grain, true) && q.WidthMM != q.HeightMM {
			out[s] = p.keep(out[s], &block{w: q.HeightMM, h: q.WidthMM, piece: i, turned: true}, w, h)
		}
	}
	for s := 1; s < total; s++ {
		for a := range p.parts(s, hand) {
			b := s - a
			if a > b || b == 0 {
				continue
			}
			for _, x := range out[a] {
				for _, y := range out[b] {
					if bw, bh := x.w+p.o.KerfMM+y.w, math.Max(x.h, y.h); useful(out[s], bw, bh, w, h) {
						out[s] = p.keep(out[s], &block{w: bw, h: bh, piece: -1, beside: true, a: x, b: y}, w, h)
					}
					if bw, bh := math.Max(x.w, y.w), x.h+p.o.KerfMM+y.h; useful(out[s], bw, bh, w, h) {
						out[s] = p.keep(out[s], &block{w: bw, h: bh, piece: -1, a: x, b: y}, w, h)
					}
				}
			}
		}
	}
	return out
}

// allowed tells whether a piece may lie turned by a quarter on a paper.
func allowed(piece, paper Grain, turned bool) bool {
	if piece == AnyGrain || paper == AnyGrain {
		return true
	}
	return (piece == paper) != turned
}

// useful tells whether a block fits on some paper and no block kept is as narrow
// and as low.
func useful(list []*block, bw, bh, w, h float64) bool {
	if bw > w+1e-9 || bh > h+1e-9 {
		return false
	}
	for _, b := range list {
		if b.w <= bw+1e-9 && b.h <= bh+1e-9 {
			return false
		}
	}
	return true
}

// keep adds a block unless another is as narrow and as low, and drops those that
// it makes useless.
func (p *planner) keep(list []*block, n *block, w, h float64) []*block {
	if !useful(list, n.w, n.h, w, h) {
		return list
	}
	list = slices.DeleteFunc(list, func(b *block) bool { return n.w <= b.w+1e-9 && n.h <= b.h+1e-9 })
	list = append(list, n)
	if len(list) > p.most {
		p.dropped = true
		worst := 0
		for i, b := range list {
			if b.w*b.h > list[worst].w*list[worst].h {
				worst = i
			}
		}
		list = slices.Delete(list, worst, worst+1)
	}
	return list
}
