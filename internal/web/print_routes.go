package web

import (
	"bytes"
	"context"
	"fmt"
	"math"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"tussock/internal/geom"
	"tussock/internal/prepare"
	"tussock/internal/prints"
	"tussock/internal/sheet"
)

// PrintQuery is how something is printed.
type PrintQuery struct {
	Format string `query:"format" enum:"pdf,svg" default:"pdf"`
	Page   string `query:"page" enum:"a4,letter" default:"a4" doc:"the paper in the printer"`
	Face   string `query:"face" enum:"none,front,back,both" default:"none" doc:"which faces carry the folds as guide lines"`
	Units  string `query:"units" enum:"mm,in" default:"mm" doc:"of the ruler and the check length"`
}

type printBuildInput struct {
	PathID
	PrintQuery
}

type printOutlineInput struct {
	PrintQuery
	Width  float64 `query:"width" doc:"mm, of the outline or of the sheet that holds it"`
	Height float64 `query:"height" doc:"mm"`
	N      int     `query:"n" doc:"corners of the largest regular outline in that sheet, 3 to 8; 0 for the rectangle itself"`
}

func (s *server) printRoutes(api huma.API) {
	huma.Register(api, huma.Operation{OperationID: "print-build", Method: http.MethodGet, Path: "/api/v1/builds/{id}/print", Summary: "The sheet of a build at true size, with its folds"}, s.printBuild)
	huma.Register(api, huma.Operation{OperationID: "print-outline", Method: http.MethodGet, Path: "/api/v1/outlines", Summary: "An outline to cut, at true size"}, s.printOutline)
}

func (s *server) printBuild(ctx context.Context, in *printBuildInput) (*fileAnswer, error) {
	b, err := s.store.Build(ctx, in.ID)
	if err != nil {
		return nil, asProblem(err, "")
	}
	p, err := findPattern(b.Pattern)
	if err != nil {
		return nil, err
	}
	setup := b.Current()
	sh, err := sheet.New(setup.Sheet.WidthMM, setup.Sheet.HeightMM, setup.Sheet.GSM, setup.Sheet.ThicknessMM)
	if err != nil {
		return nil, asProblem(err, "")
	}
	r := p.Run(sh, fullKnobs(p, setup.Knobs))
	o := prints.Order{Title: b.Name + ", " + p.Title, Outline: r.Sheet.Outline(), Down: "back"}
	if in.Face != "none" {
		o.Guides = prints.Guides(r.Final())
	}
	return in.printed(o, fmt.Sprintf("tussock-sheet-%d", b.ID))
}

func (s *server) printOutline(_ context.Context, in *printOutlineInput) (*fileAnswer, error) {
	have, err := sheet.New(in.Width, in.Height, 80, 0.1)
	if err != nil {
		return nil, asProblem(err, "query.")
	}
	o := prints.Order{Title: sheet.Number(in.Width) + " × " + sheet.Number(in.Height) + " mm", Outline: have.Outline()}
	if in.N != 0 {
		if in.N < 3 || in.N > 8 {
			return nil, refuse("query.n", in.N, "n must be 3 to 8 corners, or 0 for a rectangle")
		}
		side, tilt := prepare.Largest(in.N, have)
		piece, err := sheet.NGon(in.N, side, have.GSM, have.ThicknessMM)
		if err != nil {
			return nil, asProblem(err, "query.")
		}
		o.Title = fmt.Sprintf("%d equal sides of %.2f mm", in.N, side)
		o.Outline = turned(piece.Outline(), tilt)
	}
	return in.printed(o, "tussock-outline")
}

// turned is an outline turned by an angle, its box at the origin.
func turned(p geom.Polygon, deg float64) geom.Polygon {
	c, s := math.Cos(geom.Rad(deg)), math.Sin(geom.Rad(deg))
	out := make(geom.Polygon, len(p))
	for i, v := range p {
		out[i] = geom.Vec{X: c*v.X - s*v.Y, Y: s*v.X + c*v.Y}
	}
	box := geom.EmptyBox().Grow(out...)
	for i := range out {
		out[i] = out[i].Sub(geom.Vec{X: box.MinX, Y: box.MinY})
	}
	return out
}

// printed lays an order out and writes it.
func (q PrintQuery) printed(o prints.Order, name string) (*fileAnswer, error) {
	o.Front, o.Back = q.Face != "back", q.Face == "back" || q.Face == "both"
	o.Inches = q.Units == "in"
	page, found := prints.FindPage(q.Page)
	if !found {
		return nil, refuse("query.page", q.Page, "page must be a4 or letter")
	}
	o.Page = page
	if q.Format == "svg" {
		l, err := prints.Whole(o)
		if err != nil {
			return nil, asProblem(err, "query.")
		}
		return &fileAnswer{"image/svg+xml", `attachment; filename="` + name + `.svg"`, []byte(prints.SVG(l))}, nil
	}
	leaves, err := prints.Lay(o)
	if err != nil {
		return nil, asProblem(err, "query.")
	}
	var b bytes.Buffer
	if err := prints.PDF(&b, o.Title, leaves); err != nil {
		return nil, asProblem(err, "")
	}
	return &fileAnswer{"application/pdf", `inline; filename="` + name + `.pdf"`, b.Bytes()}, nil
}
