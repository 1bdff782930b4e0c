package papers

import (
	"context"
	"errors"
	"fmt"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"tussock/internal/bench"
	"tussock/internal/draw"
	"tussock/internal/prepare"
	"tussock/internal/sequence/remarks"
	"tussock/internal/sheet"
	"tussock/internal/web/answer"
)

// WayStep is one step of a way to a sheet.
type WayStep struct {
	Words    string               `json:"words"`
	Op       string               `json:"op"`
	Before   draw.Picture         `json:"before"`
	Next     draw.Overlay         `json:"next"`
	Cautions []answer.CautionView `json:"cautions"`
}

// LeftoverView is a rectangle that falls off.
type LeftoverView struct {
	WidthMM  float64 `json:"width_mm"`
	HeightMM float64 `json:"height_mm"`
}

// OffView is one part of an error.
type OffView struct {
	What string  `json:"what"`
	MM   float64 `json:"mm"`
}

// RegularView is how far a folded n-gon is from being regular.
type RegularView struct {
	SideMM float64 `json:"side_mm"`
	OffMM  float64 `json:"off_mm" doc:"by how much the worst side differs from the mean, with folds made exactly"`
	OffDeg float64 `json:"off_deg" doc:"by how much the worst corner differs"`
}

// WayView is one way to a sheet, carried out on the one at hand.
type WayView struct {
	ID        string         `json:"id"`
	Name      string         `json:"name"`
	Scissors  bool           `json:"scissors"`
	Minutes   float64        `json:"minutes" doc:"an estimate"`
	ErrorMM   float64        `json:"error_mm" doc:"of the edges, one standard deviation of a careful adult: an estimate"`
	Offs      []OffView      `json:"offs" doc:"what that is made of"`
	WidthMM   float64        `json:"width_mm" doc:"of the piece, or of its box"`
	HeightMM  float64        `json:"height_mm"`
	Corners   int            `json:"corners"`
	Regular   *RegularView   `json:"regular,omitempty"`
	Leftovers []LeftoverView `json:"leftovers"`
	ScrapMM2  float64        `json:"scrap_mm2"`
	Turned    bool           `json:"turned" doc:"the sheet is laid the other way round first"`
	Made      [][4]float64   `json:"made" doc:"creases that stay in the piece"`
	Steps     []WayStep      `json:"steps"`
	Piece     draw.Picture   `json:"piece"`
}

// WaysView is the answer to how to get a sheet.
type WaysView struct {
	Ways []WayView `json:"ways" doc:"the quickest first"`
	// Why says why it cannot be; Instead is the nearest that can.
	Why     string           `json:"why,omitempty"`
	Instead *bench.SheetWant `json:"instead,omitempty"`
	// Largest is the side of the largest regular outline, for n-gons: what a printed
	// template gives.
	LargestMM float64 `json:"largest_mm,omitempty"`
	TiltDeg   float64 `json:"tilt_deg,omitempty"`
}

type waysInput struct {
	Body struct {
		Sheet       answer.SizeInput `json:"sheet"`
		GSM         float64          `json:"gsm,omitempty"`
		ThicknessMM float64          `json:"thickness_mm,omitempty"`
		Want        bench.SheetWant  `json:"want"`
		CutFree     bool             `json:"cut_free,omitempty" doc:"only ways without scissors"`
	}
}

func (s *Routes) waysRoutes(api huma.API) {
	huma.Register(api, huma.Operation{OperationID: "sheet-ways", Method: http.MethodPost, Path: "/api/v1/sheet-ways", Summary: "How to get a sheet out of another", MaxBodyBytes: answer.SmallBody}, s.sheetWays)
}

func (s *Routes) sheetWays(_ context.Context, in *waysInput) (*answer.Body[WaysView], error) {
	b := in.Body
	w, h, err := b.Sheet.Mm(sheet.SideRange.Min)
	if err != nil {
		return nil, answer.AsProblem(err, "body.sheet.")
	}
	plain := bench.PlainPaper(w, h)
	if b.GSM == 0 {
		b.GSM = plain.GSM
	}
	if b.ThicknessMM == 0 {
		b.ThicknessMM = plain.ThicknessMM
	}
	have, err := sheet.New(w, h, b.GSM, b.ThicknessMM)
	if err != nil {
		return nil, answer.AsProblem(err, "body.")
	}
	q := b.Want
	want := prepare.Want{Kind: prepare.Kind(q.Kind), WidthMM: q.WidthMM, HeightMM: q.HeightMM, Ratio: q.Ratio, N: q.N,
		LeftMM: q.LeftMM, RightMM: q.RightMM, BottomMM: q.BottomMM, TopMM: q.TopMM}
	v := WaysView{Ways: []WayView{}}
	routes, err := prepare.Ways(have, want, b.CutFree)
	var no *prepare.Impossible
	switch {
	case errors.As(err, &no):
		v.Why = no.Why
		if i := no.Instead; i.Kind != "" {
			v.Instead = &bench.SheetWant{Kind: string(i.Kind), WidthMM: i.WidthMM, HeightMM: i.HeightMM}
		}
		return answer.OK(v)
	case err != nil:
		return nil, answer.AsProblem(err, "body.want.")
	}
	for _, r := range routes {
		v.Ways = append(v.Ways, viewWay(r))
	}
	if want.Kind == prepare.NGon {
		v.LargestMM, v.TiltDeg = prepare.Largest(want.N, have)
		if len(routes) == 0 && !b.CutFree {
			v.Why = fmt.Sprintf("no short chain of folds gives %d equal sides; print the outline and cut along it", want.N)
		}
	}
	if len(routes) == 0 && v.Why == "" {
		v.Why = "there is no way without scissors"
	}
	return answer.OK(v)
}

func viewWay(r prepare.Route) WayView {
	v := WayView{ID: r.ID, Name: r.Name, Scissors: r.Scissors, Minutes: r.Minutes, ErrorMM: r.ErrorMM, Offs: []OffView{},
		WidthMM: r.Piece.WidthMM, HeightMM: r.Piece.HeightMM, Corners: len(r.Piece.Outline()), Leftovers: []LeftoverView{},
		ScrapMM2: r.ScrapMM2, Turned: r.Turned, Made: [][4]float64{}, Steps: []WayStep{}, Piece: draw.Piece(r.Piece, r.Creases)}
	for _, o := range r.Offs {
		v.Offs = append(v.Offs, OffView(o))
	}
	if r.Regular != nil {
		reg := RegularView(*r.Regular)
		v.Regular = &reg
	}
	for _, l := range r.Leftovers {
		v.Leftovers = append(v.Leftovers, LeftoverView(l))
	}
	for _, c := range r.Creases {
		v.Made = append(v.Made, [4]float64{c.A.X, c.A.Y, c.B.X, c.B.Y})
	}
	cautions := remarks.Cautions(r.Steps)
	for i, d := range r.Steps {
		v.Steps = append(v.Steps, WayStep{Words: d.Say, Op: string(d.Op), Before: draw.Flat(d.Before), Next: draw.Next(d), Cautions: answer.ViewCautions(cautions[i])})
	}
	return v
}
