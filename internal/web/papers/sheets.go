package papers

import (
	"bytes"
	"context"
	"fmt"
	"math"
	"net/http"
	"slices"

	"github.com/danielgtaylor/huma/v2"

	"tussock/internal/bench"
	"tussock/internal/draw"
	"tussock/internal/given"
	"tussock/internal/prints"
	"tussock/internal/say"
	"tussock/internal/sequence/spread"
	"tussock/internal/sheet"
	"tussock/internal/sheet/cutting"
	"tussock/internal/sheet/divide"
	"tussock/internal/web/answer"
)

// CorrectingView is the way of folding ends to marks in turn, which halves any
// error at every fold.
type CorrectingView struct {
	Folds        string    `json:"folds" doc:"0: the lower end to the mark, 1: the upper end; repeated"`
	FirstErrorMM float64   `json:"first_error_mm" doc:"a guess off by this much"`
	AfterMM      []float64 `json:"after_mm" doc:"what is left of it after each round"`
	HandMM       float64   `json:"hand_mm" doc:"how far off each fold is, one standard deviation"`
	DriftMM      float64   `json:"drift_mm" doc:"what that leaves in the end"`
}

// DivisionView is the answer to how to divide a sheet.
type DivisionView struct {
	WidthMM    float64             `json:"width_mm"`
	HeightMM   float64             `json:"height_mm"`
	Sheet      draw.Picture        `json:"sheet"`
	Recipes    []answer.RecipeView `json:"recipes" doc:"fewest creases first; each is better than the ones before it"`
	Correcting *CorrectingView     `json:"correcting,omitempty"`
	Target     float64             `json:"target" doc:"the fraction or the angle wanted"`
	Tree       []TreeMark          `json:"tree" doc:"for equal parts: the marks in the order in which they are made"`
	Parts      *draw.Overlay       `json:"parts,omitempty" doc:"all marks on the sheet"`
}

// TreeMark is one of the marks that divide an edge into equal parts.
type TreeMark struct {
	K       int     `json:"k" doc:"at so many parts from the lower end"`
	Words   string  `json:"words" doc:"empty for the first mark, which the recipe gives"`
	ErrorMM float64 `json:"error_mm" doc:"one standard deviation of a careful adult"`
}

type divisionInput struct {
	Body struct {
		Sheet answer.SizeInput `json:"sheet"`
		What  string           `json:"what" enum:"fraction,parts,length,angle" doc:"a fraction or a length of the left edge from below, equal parts of it, or an angle at the lower left corner from the lower edge"`
		Part  float64          `json:"part" doc:"numerator of the fraction, count of equal parts, length in mm, or angle in degrees"`
		Of    float64          `json:"of,omitempty" doc:"denominator of the fraction"`
	}
}

// CutPiece is a piece wanted.
type CutPiece struct {
	Name  string           `json:"name,omitempty" maxLength:"80"`
	Shape string           `json:"shape,omitempty" enum:"rectangle,triangle,ngon" default:"rectangle" doc:"a triangle is half of the rectangle given, an n-gon has the width given as its side"`
	N     int              `json:"n,omitempty" doc:"corners of an n-gon, 3 to 8"`
	Size  answer.SizeInput `json:"size"`
	Count int              `json:"count"`
	Grain string           `json:"grain,omitempty" enum:"any,width,height" default:"any"`
}

// CutPaper is a kind of sheet at hand.
type CutPaper struct {
	Name  string           `json:"name,omitempty" maxLength:"80"`
	Size  answer.SizeInput `json:"size"`
	Count int              `json:"count"`
	Grain string           `json:"grain,omitempty" enum:"any,width,height" default:"any"`
}

// CutOrder is what is to be cut, and from what.
type CutOrder struct {
	Pieces []CutPiece `json:"pieces" maxItems:"12"`
	Papers []CutPaper `json:"papers" maxItems:"12"`
	KerfMM float64    `json:"kerf_mm,omitempty" doc:"lost at each cut, or room for a torn edge"`
}

type cutInput struct{ Body CutOrder }

type cutPrintInput struct {
	Order string `query:"order" maxLength:"8000" required:"true" doc:"the order, as plan-cuts takes it, JSON"`
	Page  string `query:"page" enum:"auto,a4,letter" default:"auto"`
	Units string `query:"units" enum:"mm,in" default:"mm"`
}

// LadderView are the sizes that a paper gives pieces of a row.
type LadderView struct {
	Piece string     `json:"piece"`
	Row   int        `json:"row" doc:"of the pieces, from 0"`
	Paper string     `json:"paper"`
	Rungs []RungView `json:"rungs" doc:"the largest first"`
}

// RungView is how large pieces may be when so many come from one sheet.
type RungView struct {
	Count    int     `json:"count"`
	WidthMM  float64 `json:"width_mm"`
	HeightMM float64 `json:"height_mm"`
}

// CutPart is a piece or a leftover on a sheet, mm from its lower left corner.
type CutPart struct {
	Name     string  `json:"name"`
	Leftover bool    `json:"leftover"`
	X        float64 `json:"x"`
	Y        float64 `json:"y"`
	WidthMM  float64 `json:"width_mm"`
	HeightMM float64 `json:"height_mm"`
	Turned   bool    `json:"turned"`
	Keeps    bool    `json:"keeps" doc:"a leftover worth keeping: no side under what can be folded"`
	// Outlines are the pieces in it that are no rectangles, on the sheet.
	Outlines [][]float64 `json:"outlines,omitempty" doc:"x and y in turn, mm from the sheet's lower left corner"`
}

// CutLine is one cut, in the order of cutting.
type CutLine struct {
	Upright bool    `json:"upright"`
	AtMM    float64 `json:"at_mm"`
	FromMM  float64 `json:"from_mm"`
	ToMM    float64 `json:"to_mm"`
	Words   string  `json:"words"`
}

// CutSheet is one sheet that is cut.
type CutSheet struct {
	Count    int       `json:"count" doc:"so many sheets are cut just so"`
	Paper    int       `json:"paper" doc:"which of the papers at hand, from 0"`
	Name     string    `json:"name"`
	WidthMM  float64   `json:"width_mm"`
	HeightMM float64   `json:"height_mm"`
	Parts    []CutPart `json:"parts"`
	Cuts     []CutLine `json:"cuts"`
}

// CutPlanView is how the pieces are cut.
type CutPlanView struct {
	Sheets  []CutSheet   `json:"sheets"`
	Missing []string     `json:"missing" doc:"what does not fit on the papers at hand"`
	Yield   float64      `json:"yield" doc:"area of pieces over area of sheets opened"`
	Exact   bool         `json:"exact" doc:"no plan of straight cuts right across opens less paper"`
	Opened  int          `json:"opened" doc:"sheets in all"`
	Ladders []LadderView `json:"ladders" doc:"for each row of rectangles, what the first paper gives"`
}

// FactsView is what a sheet holds.
type FactsView struct {
	WidthMM  float64      `json:"width_mm"`
	HeightMM float64      `json:"height_mm"`
	Size     string       `json:"size"`
	Squares  []SquareFact `json:"squares" doc:"the largest square, again and again"`
	Equal    []SquareFact `json:"equal" doc:"so many equal squares"`
	Others   []OtherSize  `json:"others"`
}

// SquareFact is so many squares of one size.
type SquareFact struct {
	SideMM float64 `json:"side_mm"`
	Count  int     `json:"count"`
}

// OtherSize is another standard size, seen from this sheet.
type OtherSize struct {
	Name     string  `json:"name"`
	Possible bool    `json:"possible" doc:"it can be cut from this sheet"`
	WidthMM  float64 `json:"width_mm" doc:"of the largest sheet of its proportions"`
	HeightMM float64 `json:"height_mm"`
	Scale    float64 `json:"scale" doc:"every length against the pattern's"`
	InchMM   float64 `json:"inch_mm" doc:"what an inch of the pattern becomes"`
	OffMM    float64 `json:"off_mm" doc:"what is trimmed off"`
	OffWidth bool    `json:"off_width" doc:"trimmed off the width, else off the height"`
}

// SFoldView is how to put right an edge folded in three like an S.
type SFoldView struct {
	ThirdMM  float64 `json:"third_mm"`
	FirstMM  float64 `json:"first_mm" doc:"the first fold moves so far, positive towards the last end"`
	SecondMM float64 `json:"second_mm" doc:"the second fold likewise"`
	Done     bool    `json:"done" doc:"neither is further off than a careful hand folds"`
}

type sFoldInput struct {
	Body struct {
		FirstMM  float64 `json:"first_mm"`
		MiddleMM float64 `json:"middle_mm"`
		LastMM   float64 `json:"last_mm"`
	}
}

func (s *Routes) sFold(_ context.Context, in *sFoldInput) (*answer.Body[SFoldView], error) {
	b := in.Body
	for _, w := range []struct {
		field string
		v     float64
	}{{"first_mm", b.FirstMM}, {"middle_mm", b.MiddleMM}, {"last_mm", b.LastMM}} {
		if r := (sheet.Range{Min: 1, Max: sheet.SideRange.Max, Unit: "mm"}); !r.Holds(w.v) {
			return nil, answer.AsProblem(&given.Error{Field: w.field, Value: sheet.Number(w.v) + " mm", Want: r.String()}, "body.")
		}
	}
	first, second := divide.Thirds(b.FirstMM, b.MiddleMM, b.LastMM)
	return answer.OK(SFoldView{(b.FirstMM + b.MiddleMM + b.LastMM) / 3, first, second, math.Max(math.Abs(first), math.Abs(second)) <= spread.Adult.MM})
}

// MeantView is a known size that a typed one may stand for.
type MeantView struct {
	Name     string  `json:"name"`
	WidthMM  float64 `json:"width_mm" doc:"as the typed one lies"`
	HeightMM float64 `json:"height_mm"`
	Unit     string  `json:"unit" doc:"in which the typed numbers come near it"`
}

func (s *Routes) nearSizes(_ context.Context, in *factsInput) (*answer.Body[[]MeantView], error) {
	out := []MeantView{}
	for _, m := range sheet.Near(in.Body.Width, in.Body.Height, in.Body.Unit) {
		v := MeantView{m.Name, m.WidthMM, m.HeightMM, m.Unit}
		if m.Lying {
			v.WidthMM, v.HeightMM = v.HeightMM, v.WidthMM
		}
		out = append(out, v)
	}
	return answer.OK(out)
}

func (s *Routes) paperRoutes(api huma.API) {
	huma.Register(api, huma.Operation{OperationID: "plain-paper", Method: http.MethodGet, Path: "/api/v1/plain-paper", Summary: "Ordinary copying paper, when nobody has said which"},
		func(context.Context, *struct{}) (*answer.Body[bench.SheetSpec], error) {
			return answer.OK(bench.PlainPaper(sheet.Plain()))
		})
	huma.Register(api, huma.Operation{OperationID: "turn-sheet", Method: http.MethodPost, Path: "/api/v1/turned-sheets", Summary: "A sheet with its other side up", MaxBodyBytes: answer.SmallBody}, s.turnSheet)
	huma.Register(api, huma.Operation{OperationID: "near-sizes", Method: http.MethodPost, Path: "/api/v1/near-sizes", Summary: "Known sizes that a typed one may stand for", MaxBodyBytes: answer.SmallBody}, s.nearSizes)
	huma.Register(api, huma.Operation{OperationID: "measured-sheet", Method: http.MethodPost, Path: "/api/v1/measured-sheets", Summary: "Judge a sheet by its sides and diagonals", MaxBodyBytes: answer.SmallBody}, s.measured)
	huma.Register(api, huma.Operation{OperationID: "s-fold", Method: http.MethodPost, Path: "/api/v1/s-folds", Summary: "Nudge an S-fold to thirds", MaxBodyBytes: answer.SmallBody}, s.sFold)
	huma.Register(api, huma.Operation{OperationID: "divide", Method: http.MethodPost, Path: "/api/v1/divisions", Summary: "Divide a sheet by folding", MaxBodyBytes: answer.SmallBody}, s.divide)
	huma.Register(api, huma.Operation{OperationID: "plan-cuts", Method: http.MethodPost, Path: "/api/v1/cut-plans", Summary: "Plan how pieces are cut from papers", MaxBodyBytes: answer.SmallBody}, s.planCuts)
	huma.Register(api, huma.Operation{OperationID: "print-cuts", Method: http.MethodGet, Path: "/api/v1/cut-plans/print", Summary: "A cut plan on paper, one page for all sheets cut alike"}, s.printCuts)
	huma.Register(api, huma.Operation{OperationID: "sheet-facts", Method: http.MethodPost, Path: "/api/v1/sheet-facts", Summary: "What a sheet holds", MaxBodyBytes: answer.SmallBody}, s.sheetFacts)
}

type turnInput struct{ Body answer.SheetInput }

func (s *Routes) turnSheet(_ context.Context, in *turnInput) (*answer.Body[bench.SheetSpec], error) {
	spec, err := in.Body.Spec()
	if err != nil {
		return nil, answer.AsProblem(err, "body.")
	}
	return answer.OK(spec.TurnedOver())
}

func (s *Routes) divide(_ context.Context, in *divisionInput) (*answer.Body[DivisionView], error) {
	w, h, err := in.Body.Sheet.Mm(sheet.SideRange.Min)
	if err != nil {
		return nil, answer.AsProblem(err, "body.sheet.")
	}
	v := DivisionView{WidthMM: w, HeightMM: h, Sheet: draw.Blank(w, h), Recipes: []answer.RecipeView{}}
	v.Tree = []TreeMark{}
	q := divide.Wanted{What: in.Body.What, Part: in.Body.Part, Of: in.Body.Of}
	if v.Target, err = q.Target(h); err != nil {
		return nil, answer.AsProblem(err, "body.")
	}
	var found []divide.Recipe
	if q.What == "angle" {
		found = divide.Angle(w, h, v.Target)
	} else {
		found = divide.Fraction(w, h, v.Target)
		v.equalParts(q.Parts(), h, found)
	}
	for _, r := range found {
		v.Recipes = append(v.Recipes, answer.ViewRecipe(w, h, r))
	}
	return answer.OK(v)
}

// equalParts adds the self-correcting way and the tree of marks.
func (v *DivisionView) equalParts(n int, edgeMM float64, found []divide.Recipe) {
	c, tree := divide.Equal(n, edgeMM, spread.Adult.MM, found)
	v.Correcting = (*CorrectingView)(c)
	for _, m := range tree {
		v.Tree = append(v.Tree, TreeMark{m.K, m.Words, m.ErrorMM})
	}
	if len(tree) > 0 {
		over := draw.Parts(v.WidthMM, v.HeightMM, n)
		v.Parts = &over
	}
}

// The least side, in mm, of a piece that can be cut and held, and of a square
// that is worth telling.
const leastPieceMM, leastSquareMM = 5, 15

func grainOf(s string) cutting.Grain {
	return map[string]cutting.Grain{"width": cutting.AlongWide, "height": cutting.AlongHigh}[s]
}

func (s *Routes) planCuts(_ context.Context, in *cutInput) (*answer.Body[CutPlanView], error) {
	o, err := in.Body.order()
	if err != nil {
		return nil, err
	}
	plan, err := cutting.Make(o)
	if err != nil {
		return nil, answer.AsProblem(err, "body.")
	}
	return answer.OK(viewPlan(o, plan))
}

// printCuts prints a plan, one page for all sheets that are cut alike.
func (s *Routes) printCuts(ctx context.Context, in *cutPrintInput) (*answer.File, error) {
	var order CutOrder
	if err := answer.ReadJSON([]byte(in.Order), &order); err != nil {
		return nil, answer.Refuse("query.order", nil, err.Error())
	}
	o, err := order.order()
	if err != nil {
		return nil, err
	}
	plan, err := cutting.Make(o)
	if err != nil {
		return nil, answer.AsProblem(err, "query.order.")
	}
	page, err := s.printer(ctx, in.Page, o.Papers[0].WidthMM, o.Papers[0].HeightMM)
	if err != nil {
		return nil, err
	}
	var sheets []prints.CutSheet
	for _, a := range plan.Grouped() {
		q := o.Papers[a.Paper]
		c := prints.CutSheet{Name: q.Name, Count: a.Count, WidthMM: q.WidthMM, HeightMM: q.HeightMM}
		for _, p := range slices.Concat(a.Pieces, a.Leftovers) {
			part := prints.CutPart{X: p.X, Y: p.Y, WidthMM: p.WidthMM, HeightMM: p.HeightMM, Leftover: p.Piece < 0}
			if p.Piece >= 0 {
				part.Name, part.Outlines = o.Pieces[p.Piece].Name, o.Pieces[p.Piece].Placed(p)
			}
			c.Parts = append(c.Parts, part)
		}
		for _, k := range a.Cuts {
			c.Cuts, c.Words = append(c.Cuts, k.Line()), append(c.Words, k.Words())
		}
		sheets = append(sheets, c)
	}
	var b bytes.Buffer
	if err := prints.PDF(&b, "Tussock cut plan", prints.CutPlan(sheets, page, say.Units(in.Units))); err != nil {
		return nil, answer.AsProblem(err, "")
	}
	return &answer.File{Type: "application/pdf", Disposition: `inline; filename="tussock-cuts.pdf"`, Body: b.Bytes()}, nil
}

// printer is the paper in the printer: asked for, set, or the one that goes with a sheet.
func (s *Routes) printer(ctx context.Context, asked string, widthMM, heightMM float64) (prints.Page, error) {
	v, err := s.store.Settings(ctx)
	if err != nil {
		return prints.Page{}, answer.AsProblem(err, "")
	}
	return prints.Printer(asked, v.Page, widthMM, heightMM), nil
}

// order is the order as the planner takes it, checked.
func (in CutOrder) order() (cutting.Order, error) {
	var o cutting.Order
	o.KerfMM = in.KerfMM
	for i, p := range in.Pieces {
		w, h, err := p.Size.Mm(leastPieceMM)
		if err != nil {
			return o, answer.AsProblem(err, fmt.Sprintf("body.pieces[%d].size.", i))
		}
		piece := cutting.Piece{Name: p.Name, WidthMM: w, HeightMM: h, Count: p.Count, Grain: grainOf(p.Grain)}
		switch p.Shape {
		case "triangle":
			piece, err = cutting.Triangles(piece)
		case "ngon":
			piece, err = cutting.Regular(piece, p.N)
		}
		if err != nil {
			return o, answer.AsProblem(err, fmt.Sprintf("body.pieces[%d].", i))
		}
		o.Pieces = append(o.Pieces, piece)
	}
	for i, p := range in.Papers {
		w, h, err := p.Size.Mm(sheet.SideRange.Min)
		if err != nil {
			return o, answer.AsProblem(err, fmt.Sprintf("body.papers[%d].size.", i))
		}
		o.Papers = append(o.Papers, cutting.Paper{Name: p.Name, WidthMM: w, HeightMM: h, Count: p.Count, Grain: grainOf(p.Grain)})
	}
	return o, nil
}

func viewPlan(o cutting.Order, plan *cutting.Plan) CutPlanView {
	v := CutPlanView{Sheets: []CutSheet{}, Missing: []string{}, Yield: plan.Yield, Exact: plan.Exact, Opened: len(plan.Sheets), Ladders: []LadderView{}}
	for _, q := range plan.Grouped() {
		paper := o.Papers[q.Paper]
		c := CutSheet{Count: q.Count, Paper: q.Paper, Name: paper.Name, WidthMM: paper.WidthMM, HeightMM: paper.HeightMM, Parts: []CutPart{}, Cuts: []CutLine{}}
		for _, p := range append(append([]cutting.Placed{}, q.Pieces...), q.Leftovers...) {
			part := CutPart{Leftover: p.Piece < 0, X: p.X, Y: p.Y, WidthMM: p.WidthMM, HeightMM: p.HeightMM, Turned: p.Turned, Keeps: p.Keeps()}
			if p.Piece >= 0 {
				part.Name = o.Pieces[p.Piece].Name
				for _, shape := range o.Pieces[p.Piece].Placed(p) {
					var flat []float64
					for _, v := range shape {
						flat = append(flat, v.X, v.Y)
					}
					part.Outlines = append(part.Outlines, flat)
				}
			}
			c.Parts = append(c.Parts, part)
		}
		for _, cut := range q.Cuts {
			c.Cuts = append(c.Cuts, CutLine{cut.Upright, cut.AtMM, cut.FromMM, cut.ToMM, cut.Words()})
		}
		v.Sheets = append(v.Sheets, c)
	}
	for i, p := range o.Pieces {
		if p.Shapes != nil {
			continue
		}
		l := LadderView{Piece: p.Name, Row: i, Paper: o.Papers[0].Name, Rungs: []RungView{}}
		for _, r := range cutting.Ladder(o.Papers[0], p.HeightMM/p.WidthMM, o.KerfMM) {
			l.Rungs = append(l.Rungs, RungView(r))
		}
		v.Ladders = append(v.Ladders, l)
	}
	for i, n := range plan.Missing {
		if n > 0 {
			name := o.Pieces[i].Name
			if name == "" {
				name = say.By(o.Pieces[i].WidthMM, o.Pieces[i].HeightMM, 1)
			}
			v.Missing = append(v.Missing, fmt.Sprintf("%d of %s", n, name))
		}
	}
	return v
}

type factsInput struct{ Body answer.SizeInput }

func (s *Routes) sheetFacts(_ context.Context, in *factsInput) (*answer.Body[FactsView], error) {
	w, h, err := in.Body.Mm(sheet.SideRange.Min)
	if err != nil {
		return nil, answer.AsProblem(err, "body.")
	}
	v := FactsView{WidthMM: w, HeightMM: h, Size: sheet.NameOf(w, h), Squares: []SquareFact{}, Equal: []SquareFact{}, Others: []OtherSize{}}
	for _, q := range sheet.Squares(w, h, leastSquareMM) {
		v.Squares = append(v.Squares, SquareFact(q))
	}
	for _, n := range []int{2, 4, 6, 8, 12} {
		if side := sheet.EqualSquares(w, h, n); side >= leastSquareMM {
			v.Equal = append(v.Equal, SquareFact{side, n})
		}
	}
	for _, z := range sheet.Sizes[:sheet.Usual] {
		if z.Name == v.Size {
			continue
		}
		v.Others = append(v.Others, otherSize(sheet.Sheet{WidthMM: w, HeightMM: h}, z.Name, z.WidthMM, z.HeightMM))
	}
	return answer.OK(v)
}
