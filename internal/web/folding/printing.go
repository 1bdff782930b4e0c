package folding

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"math"
	"net/http"
	"slices"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"tussock/internal/bench"
	"tussock/internal/body"
	"tussock/internal/draw"
	"tussock/internal/geom"
	"tussock/internal/motion"
	"tussock/internal/motion/toys"
	"tussock/internal/prepare"
	"tussock/internal/prints"
	"tussock/internal/say"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
	"tussock/internal/shelf"
	"tussock/internal/store"
	"tussock/internal/ways"
	"tussock/internal/web/answer"
)

// PrintQuery is how something is printed.
type PrintQuery struct {
	Format string  `query:"format" enum:"pdf,svg" default:"pdf"`
	Page   string  `query:"page" enum:"auto,a4,letter,own" default:"auto" doc:"the paper in the printer; own: the sheet itself goes through it; auto: as the settings say, else by the sheet"`
	Face   string  `query:"face" enum:"none,front,back,both" default:"none" doc:"which faces carry the folds as guide lines"`
	Units  string  `query:"units" enum:"mm,in" default:"mm" doc:"of the ruler and the check length"`
	Step   int     `query:"step" minimum:"0" maximum:"400" doc:"the folds of one step alone, to practise it; 0 for all"`
	Write  string  `query:"write" enum:"filled,half,blank" default:"filled" doc:"of a toy that is written on: all of it, all but what is hidden, or nothing"`
	BandMM float64 `query:"band_mm" minimum:"0" maximum:"10" doc:"for young folders: half the width of the band within which a fold is good"`
}

type printBuildInput struct {
	answer.PathID
	PrintQuery
}

type printOutlineInput struct {
	PrintQuery
	Width  float64 `query:"width" doc:"mm, of the outline or of the sheet that holds it"`
	Height float64 `query:"height" doc:"mm"`
	N      int     `query:"n" doc:"corners of the largest regular outline in that sheet, 3 to 8; 0 for the rectangle itself"`
}

func (s *Routes) printRoutes(api huma.API) {
	huma.Register(api, huma.Operation{OperationID: "print-build", Method: http.MethodGet, Path: "/api/v1/builds/{id}/print", Summary: "The sheet of a build at true size, with its folds"}, s.printBuild)
	huma.Register(api, huma.Operation{OperationID: "print-steps", Method: http.MethodGet, Path: "/api/v1/builds/{id}/step-sheets", Summary: "The steps of a build on paper"}, s.printSteps)
	huma.Register(api, huma.Operation{OperationID: "step-picture", Method: http.MethodGet, Path: "/api/v1/builds/{id}/steps/{step}/picture", Summary: "The picture of one step, SVG"}, s.stepPicture)
	huma.Register(api, huma.Operation{OperationID: "measuring-card", Method: http.MethodGet, Path: "/api/v1/moves/{moves}/card", Summary: "A card that helps to measure the finished toy, PDF"}, s.measuringCard)
	huma.Register(api, huma.Operation{OperationID: "print-outline", Method: http.MethodGet, Path: "/api/v1/outlines", Summary: "An outline to cut, at true size"}, s.printOutline)
}

// built replays a build as it is set up now.
func (s *Routes) built(ctx context.Context, id int64) (*bench.Build, *sequence.Replay, error) {
	b, err := s.store.Build(ctx, id)
	if err != nil {
		return nil, nil, answer.AsProblem(err, "")
	}
	p, err := answer.FindPattern(b.Pattern)
	if err != nil {
		return nil, nil, err
	}
	setup := b.Current()
	sh, err := sheet.New(setup.Sheet.WidthMM, setup.Sheet.HeightMM, setup.Sheet.GSM, setup.Sheet.ThicknessMM)
	if err != nil {
		return nil, nil, answer.AsProblem(err, "")
	}
	return b, p.Run(sh, p.FullKnobs(setup.Knobs)), nil
}

type stepSheetInput struct {
	answer.PathID
	Page   string `query:"page" enum:"auto,a4,letter" default:"auto"`
	Format string `query:"format" enum:"pdf,svg" default:"pdf" doc:"svg has all pages below one another"`
	Style  string `query:"style" enum:"usual,large,summary" default:"usual" doc:"six steps a page, two in large type, or all on as few pages as can be"`
	Units  string `query:"units" enum:"mm,in" default:"mm"`
}

func (s *Routes) printSteps(ctx context.Context, in *stepSheetInput) (*answer.File, error) {
	b, r, err := s.built(ctx, in.ID)
	if err != nil {
		return nil, err
	}
	page, err := s.page(ctx, in.Page, r.Sheet.WidthMM, r.Sheet.HeightMM)
	if err != nil {
		return nil, err
	}
	ways.For(r.Pattern).Write(r, b.Current().Written)
	panels := stepPanels(r, say.Units(in.Units))
	done := prints.Panel{Picture: draw.At(r, len(r.Steps)), Head: "Done", Text: r.Pattern.Title + ", folded flat."}
	if r.Err == nil {
		if toy := viewToy(r, body.Measure(r.Final())); toy.Round != nil {
			done.Picture, done.Text = *toy.Round, r.Pattern.Title+"."
		}
	}
	panels = append(panels, done)
	layout := map[string]prints.Layout{"large": prints.Large, "summary": prints.Summary}[in.Style]
	if layout.Cols == 0 {
		layout = prints.Usual
	}
	title := s.titled(ctx, b, r.Pattern)
	leaves := prints.Steps(title, panels, page, layout)
	if in.Format == "svg" {
		return &answer.File{Type: "image/svg+xml", Disposition: fmt.Sprintf(`inline; filename="tussock-steps-%d.svg"`, b.ID), Body: []byte(prints.SVG(prints.Stacked(leaves)))}, nil
	}
	var out bytes.Buffer
	if err := prints.PDF(&out, title, leaves); err != nil {
		return nil, answer.AsProblem(err, "")
	}
	return &answer.File{Type: "application/pdf", Disposition: fmt.Sprintf(`inline; filename="tussock-steps-%d.pdf"`, b.ID), Body: out.Bytes()}, nil
}

// stepPanels are the steps of a replay as they are printed, in a person's units.
func stepPanels(r *sequence.Replay, u say.Units) []prints.Panel {
	look := ways.For(r.Pattern).Look
	panels, stages := make([]prints.Panel, len(r.Steps)), draw.Stages(r, look)
	for i, d := range r.Steps {
		st := stages[i]
		for k, q := range st.Over.Sizes {
			st.Over.Sizes[k].Text = say.In(u, q.Text)
		}
		p := prints.Panel{Picture: st.Picture, Over: &st.Over, Second: st.After, Head: fmt.Sprintf("%d  %s", d.No, d.Title()), Text: say.In(u, d.Say)}
		if half, ok := draw.HalfwayOf(r, d.No); ok {
			p.Second = &half
		}
		if d.Optional {
			p.Notes = append(p.Notes, "You may leave this step out.")
		}
		for _, g := range d.Guards {
			p.Notes = append(p.Notes, "Not later: "+g.Reason+".")
		}
		if d.Looks != "" {
			p.Notes = append(p.Notes, "Right when "+say.In(u, d.Looks)+".")
		}
		panels[i] = p
	}
	for i, f := range draw.Frames(stages) {
		panels[i].View = f.View
		if f.Zoom != 1 {
			panels[i].Head += fmt.Sprintf("  (drawn %s ×)", sheet.Number(f.Zoom))
		}
	}
	return panels
}

type stepPictureInput struct {
	answer.PathID
	Step int `path:"step" minimum:"1" maximum:"400"`
}

func (s *Routes) stepPicture(ctx context.Context, in *stepPictureInput) (*answer.File, error) {
	b, r, err := s.built(ctx, in.ID)
	if err != nil {
		return nil, err
	}
	if in.Step > len(r.Steps) {
		return nil, answer.Refuse("path.step", in.Step, fmt.Sprintf("%s has %d steps that can be folded", r.Pattern.Title, len(r.Steps)))
	}
	ways.For(r.Pattern).Write(r, b.Current().Written)
	st := draw.StageOf(r, in.Step, ways.For(r.Pattern).Look)
	sp := b.Current().Sheet
	return &answer.File{Type: "image/svg+xml", Disposition: fmt.Sprintf(`inline; filename="tussock-%d-step-%d.svg"`, b.ID, in.Step),
		Body: []byte(draw.SVG(st.Picture, &st.Over, draw.Colours{Front: sp.Front, Back: sp.Back}))}, nil
}

func (s *Routes) printBuild(ctx context.Context, in *printBuildInput) (*answer.File, error) {
	b, r, err := s.built(ctx, in.ID)
	if err != nil {
		return nil, err
	}
	if in.Step > len(r.Steps) {
		return nil, answer.Refuse("query.step", in.Step, fmt.Sprintf("%s has %d steps that can be folded", r.Pattern.Title, len(r.Steps)))
	}
	o := prints.Order{Title: s.titled(ctx, b, r.Pattern), Outline: r.Sheet.Outline(), Down: "back"}
	if in.Face != "none" {
		o.Guides, o.Notes = guidesOf(r, in.Step), prints.Notes(r.Notes)
		if _, err := s.write(ctx, &o, r, b.Current().Written, toys.Content(in.Write)); err != nil {
			return nil, err
		}
	}
	if in.Step > 0 {
		o.Title += fmt.Sprintf(". Step %d alone, to practise", in.Step)
	}
	return s.printed(ctx, in.PrintQuery, o, fmt.Sprintf("tussock-sheet-%d", b.ID))
}

// fromEdgeMM is how far fold lines stop short of the paper's edge.
const fromEdgeMM = 3.0

// guidesOf are the folds of a replay as they are printed: all of them, or those of one step.
func guidesOf(r *sequence.Replay, step int) []prints.Guide {
	if step == 0 {
		return prints.InsetGuides(prints.Guides(r.Final()), r.Sheet.Outline(), fromEdgeMM)
	}
	before := r.Start
	if step > 1 {
		before = r.Steps[step-2].After
	}
	had := prints.Guides(before)
	return prints.InsetGuides(slices.DeleteFunc(prints.Guides(r.Steps[step-1].After), func(g prints.Guide) bool {
		return slices.ContainsFunc(had, func(h prints.Guide) bool {
			return geom.Mid(g.A, g.B).Dist(geom.Mid(h.A, h.B)) < geom.Distinct
		})
	}), r.Sheet.Outline(), fromEdgeMM)
}

// write puts what is written on a toy onto its print; faults are texts that cannot be read
// there.
func (s *Routes) write(ctx context.Context, o *prints.Order, r *sequence.Replay, w motion.Written, how toys.Content) (faults []toys.Fault, err error) {
	q := ways.For(r.Pattern).Writing
	if q == nil || r.Err != nil {
		return nil, nil
	}
	places, err := q.Places(r)
	if err != nil {
		return nil, nil //nolint:nilerr // a toy that cannot be written on is printed with its folds
	}
	if q.Outline != nil {
		if outline := q.Outline(r); outline != nil {
			o.Outline, o.Down = outline, ""
			o.Guides = prints.Within(o.Guides, outline)
		}
	}
	w = how.Of(q, places, w)
	inks, faults := q.All(r, places, w)
	notes := q.Besides(r.Notes, w)
	if how == toys.Blank { // to be written by hand: what the pattern writes there is left out too
		notes = slices.DeleteFunc(notes, func(n sequence.Note) bool { return n.Zone != "" })
	}
	o.Notes = prints.Notes(notes)
	o.Notes = append(o.Notes, inks...)
	o.Images = map[string][]byte{}
	for _, k := range inks {
		name, own := motion.OwnName(k.Image)
		if !own || o.Images[k.Image] != nil {
			continue
		}
		body, err := s.store.Image(ctx, name)
		if errors.Is(err, store.ErrNotFound) {
			continue // it came with a file from elsewhere
		}
		if err != nil {
			return nil, answer.AsProblem(err, "")
		}
		o.Images[k.Image] = body
	}
	return faults, nil
}

func (s *Routes) printOutline(ctx context.Context, in *printOutlineInput) (*answer.File, error) {
	have, err := sheet.New(in.Width, in.Height, sheet.PlainGSM, sheet.PlainThicknessMM)
	if err != nil {
		return nil, answer.AsProblem(err, "query.")
	}
	o := prints.Order{Title: sheet.Number(in.Width) + " × " + sheet.Number(in.Height) + " mm", Outline: have.Outline()}
	if in.N != 0 {
		if in.N < 3 || in.N > 8 {
			return nil, answer.Refuse("query.n", in.N, "n must be 3 to 8 corners, or 0 for a rectangle")
		}
		side, tilt := prepare.Largest(in.N, have)
		piece, err := sheet.NGon(in.N, side, have.GSM, have.ThicknessMM)
		if err != nil {
			return nil, answer.AsProblem(err, "query.")
		}
		o.Title = fmt.Sprintf("%d equal sides of %s", in.N, say.MM(side, 2))
		o.Outline = turned(piece.Outline(), tilt)
	}
	return s.printed(ctx, in.PrintQuery, o, "tussock-outline")
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

// titled is what stands on a print of a build: its name, what it was made from, its pattern
// and whose work that is.
func (s *Routes) titled(ctx context.Context, b *bench.Build, p *sequence.Pattern) string {
	title := b.Name + ", " + p.Title
	// Without its parent's name a print is still a print.
	if _, parent, err := s.store.Family(ctx, b); err == nil && parent != "" && b.ParentTweak != nil {
		title += fmt.Sprintf(", child of %s, tweak %d", parent, *b.ParentTweak)
	}
	if by := shelf.Lineage(p); by != "" {
		title += ". " + by
	}
	return title
}

// page is the paper to print on: the one asked for, else that of the settings, else the
// one that goes with the sheet.
func (s *Routes) page(ctx context.Context, asked string, widthMM, heightMM float64) (prints.Page, error) {
	v, err := s.store.Settings(ctx)
	if err != nil {
		return prints.Page{}, answer.AsProblem(err, "")
	}
	return prints.Printer(asked, v.Page, widthMM, heightMM), nil
}

// printed lays an order out and writes it.
func (s *Routes) printed(ctx context.Context, q PrintQuery, o prints.Order, name string) (*answer.File, error) {
	o.Front, o.Back = q.Face != "back", q.Face == "back" || q.Face == "both"
	o.Inches, o.BandMM = q.Units == "in", q.BandMM
	box := geom.EmptyBox().Grow(o.Outline...)
	var err error
	if o.Page, err = s.page(ctx, q.Page, box.Width(), box.Height()); err != nil {
		return nil, err
	}
	if q.Format == "svg" {
		l, err := prints.Whole(o)
		if err != nil {
			return nil, answer.AsProblem(err, "query.")
		}
		return &answer.File{Type: "image/svg+xml", Disposition: `attachment; filename="` + name + `.svg"`, Body: []byte(prints.SVG(l))}, nil
	}
	leaves, err := prints.Lay(o)
	if err != nil {
		return nil, answer.AsProblem(err, "query.")
	}
	var b bytes.Buffer
	if err := prints.PDF(&b, o.Title, leaves); err != nil {
		return nil, answer.AsProblem(err, "")
	}
	return &answer.File{Type: "application/pdf", Disposition: `inline; filename="` + name + `.pdf"`, Body: b.Bytes()}, nil
}

type cardInput struct {
	Moves   string  `path:"moves" maxLength:"40"`
	Page    string  `query:"page" enum:"auto,a4,letter" default:"auto"`
	Units   string  `query:"units" enum:"mm,in" default:"mm"`
	DepthMM float64 `query:"depth_mm" default:"10" minimum:"4" maximum:"25" doc:"depth of the edge that the card shows"`
}

func (s *Routes) measuringCard(ctx context.Context, in *cardInput) (*answer.File, error) {
	page, err := s.page(ctx, in.Page, 0, 0)
	if err != nil {
		return nil, err
	}
	w := ways.Of(in.Moves)
	if w.Card == nil || w.Name != in.Moves {
		return nil, huma.Error404NotFound("there is no card for toys that move so")
	}
	var b bytes.Buffer
	if err := prints.PDF(&b, "Tussock "+w.Card.Name, []prints.Leaf{w.Card.Lay(page, in.DepthMM, in.Units == "in")}); err != nil {
		return nil, answer.AsProblem(err, "")
	}
	return &answer.File{Type: "application/pdf", Disposition: `inline; filename="tussock-` + strings.ReplaceAll(w.Card.Name, " ", "-") + `.pdf"`, Body: b.Bytes()}, nil
}
