package papers

import (
	"context"
	"fmt"
	"math"

	"tussock/internal/bench"
	"tussock/internal/body"
	"tussock/internal/draw"
	"tussock/internal/say"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
	"tussock/internal/web/answer"
)

// SquarenessView is what a sheet's sides and diagonals tell.
type SquarenessView struct {
	OffDeg     float64     `json:"off_deg" doc:"90 less the angle at the lower left corner"`
	OffByDeg   float64     `json:"off_by_deg" doc:"uncertain by so much"`
	RulerMM    float64     `json:"ruler_mm" doc:"for a ruler read so exactly"`
	MissWideMM float64     `json:"miss_wide_mm" doc:"left edge folded to the right: the corners miss by"`
	MissHighMM float64     `json:"miss_high_mm"`
	TrimWideMM float64     `json:"trim_wide_mm" doc:"the rectangle that can be trimmed from it"`
	TrimHighMM float64     `json:"trim_high_mm"`
	Square     bool        `json:"square" doc:"corners miss by no more than a fold does"`
	Misread    bool        `json:"misread" doc:"sides and diagonals do not belong together"`
	Toy        *EffectView `json:"toy,omitempty" doc:"what it does to the toy asked for"`
}

// EffectView is what a sheet that is a little off does to a toy.
type EffectView struct {
	Why       string        `json:"why" doc:"it cannot be folded, and why; empty when it can"`
	Misfits   []MisfitView  `json:"misfits" doc:"of edges that should meet on the finished toy, folded flat"`
	Trim      bool          `json:"trim" doc:"a trim makes it right"`
	TrimWMM   float64       `json:"trim_w_mm" doc:"the sheet to trim to"`
	TrimHMM   float64       `json:"trim_h_mm"`
	OffWMM    float64       `json:"off_w_mm" doc:"what that takes off, against the sides measured"`
	OffHMM    float64       `json:"off_h_mm"`
	Estimated bool          `json:"estimated" doc:"with every fold where it lies on the exact sheet: to first order"`
	PerMM     float64       `json:"per_mm" doc:"what the worst misfit comes to for each mm that the sheet is off; 0 when it is right"`
	Picture   *draw.Picture `json:"picture,omitempty" doc:"the finished toy from this sheet, folded flat"`
}

// MisfitView is one pair of edges.
type MisfitView struct {
	Edges string  `json:"edges"`
	Kind  string  `json:"kind" enum:"gap,overlap,beside"`
	MM    float64 `json:"mm"`
}

type measuredInput struct {
	Body struct {
		WidthMM   float64 `json:"width_mm"`
		HeightMM  float64 `json:"height_mm"`
		RisingMM  float64 `json:"rising_mm,omitempty" doc:"lower left to upper right corner; 0 when not measured"`
		FallingMM float64 `json:"falling_mm,omitempty" doc:"upper left to lower right corner"`
		Pattern   string  `json:"pattern,omitempty" maxLength:"80" doc:"a toy that is to be folded from it"`
	}
}

func (s *Routes) measured(_ context.Context, in *measuredInput) (*answer.Body[SquarenessView], error) {
	b := in.Body
	w, h, err := (answer.SizeInput{Width: b.WidthMM, Height: b.HeightMM, Unit: "mm"}).Mm(sheet.SideRange.Min)
	if err != nil {
		return nil, answer.AsProblem(err, "body.")
	}
	var q sheet.Squareness
	if b.RisingMM == 0 && b.FallingMM == 0 && b.Pattern != "" {
		// Two sides alone: taken as square-cornered.
		q.TrimWidthMM, q.TrimHighMM = w, h
	} else {
		var fits bool
		if q, fits = sheet.Measured(w, h, b.RisingMM, b.FallingMM); !fits {
			d := math.Hypot(w, h)
			field, v := "body.rising_mm", b.RisingMM
			if v == 0 {
				field, v = "body.falling_mm", b.FallingMM
			}
			return nil, answer.Refuse(field, v, fmt.Sprintf("no sheet of this size has such diagonals; a square-cornered one has %s", say.MM(math.Round(10*d)/10, 1)))
		}
	}
	v := SquarenessView{q.OffDeg, q.OffByDeg, sheet.RulerMM, q.MissWideMM, q.MissHighMM, q.TrimWidthMM, q.TrimHighMM, q.Square(), q.Misread(), nil}
	if b.Pattern != "" && !q.Misread() {
		p, err := answer.FindPattern(b.Pattern)
		if err != nil {
			return nil, err
		}
		if v.Toy, err = viewEffect(p, w, h, q); err != nil {
			return nil, answer.AsProblem(err, "body.")
		}
	}
	return answer.OK(v)
}

func viewEffect(p *sequence.Pattern, w, h float64, q sheet.Squareness) (*EffectView, error) {
	plain := bench.PlainPaper(w, h)
	e, err := body.EffectOf(p, w, h, plain.GSM, plain.ThicknessMM, q)
	if err != nil {
		return nil, err
	}
	v := &EffectView{Why: e.Why, Misfits: []MisfitView{}, Trim: e.Trim, TrimWMM: e.TrimWMM, TrimHMM: e.TrimHMM, OffWMM: e.OffWMM, OffHMM: e.OffHMM, Estimated: e.Estimated, PerMM: e.PerMM()}
	for _, m := range e.Misfits {
		v.Misfits = append(v.Misfits, MisfitView{m.Words(), string(m.Kind), m.MM})
	}
	if e.Real != nil {
		pic := draw.Flat(e.Real.Final())
		v.Picture = &pic
	}
	return v, nil
}
