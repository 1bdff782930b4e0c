package folding

import (
	"context"
	"fmt"
	"math"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"tussock/internal/body"
	"tussock/internal/care"
	"tussock/internal/draw"
	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/say"
	"tussock/internal/sequence"
	"tussock/internal/sequence/remarks"
	"tussock/internal/sequence/spread"
	"tussock/internal/turn"
	"tussock/internal/ways"
	"tussock/internal/web/answer"
)

// CareView is the care that one step needs.
type CareView struct {
	No       int         `json:"no"`
	Made     bool        `json:"made" doc:"lines are creased by hand in it"`
	PerMM    float64     `json:"per_mm" doc:"how far the worst landmark moves at the end for 1 mm here"`
	Worst    string      `json:"worst"`
	Class    string      `json:"class" enum:"critical,normal,free"`
	Author   string      `json:"author" doc:"what the author says of it, or empty"`
	Share    float64     `json:"share" doc:"of all scatter at the end, 0 to 1"`
	Layers   int         `json:"layers"`
	StackMM  float64     `json:"stack_mm"`
	Tool     string      `json:"tool" doc:"to press with; empty when nothing is pressed"`
	Hold     *[2]float64 `json:"hold,omitempty" doc:"where to hold the paper, in the picture before"`
	DriftMM  float64     `json:"drift_mm" doc:"how far off the crease lies in the outermost layer, at most"`
	SlideMM  float64     `json:"slide_mm" doc:"how far the outermost layers slide against each other: normal"`
	OpensDeg float64     `json:"opens_deg" doc:"the fold opens by itself so far: normal"`
	Strain   string      `json:"strain"`
	Soft     bool        `json:"soft"`
	Cuts     bool        `json:"cuts"`
	Fixes    bool        `json:"fixes" doc:"glue, tape or a clip"`
}

// MistakeView is a likely mistake, carried out.
type MistakeView struct {
	Kind    string       `json:"kind"`
	Words   string       `json:"words"`
	Cure    string       `json:"cure"`
	Picture draw.Picture `json:"picture"`
}

// LookView is a step looked at more closely.
type LookView struct {
	XRay     draw.Overlay  `json:"xray" doc:"hidden folds and edges of the paper before the step"`
	Mistakes []MistakeView `json:"mistakes"`
	Map      DrawnOver     `json:"map" doc:"crease map of the flat sheet after the step"`
}

// WhenceView is where one point of the sheet lies, flat and after every step.
type WhenceView struct {
	Words string     `json:"words" doc:"the landmark that it is, or where it lies on the sheet"`
	Sheet [2]float64 `json:"sheet" doc:"in the crease map"`
	Steps []StepSpot `json:"steps"`
}

// StepSpot is where the point lies after a step.
type StepSpot struct {
	No int         `json:"no"`
	At *[2]float64 `json:"at,omitempty" doc:"in the picture after it; absent when it has been cut off"`
}

// SlipView is what a slip at a step does, and what makes up for it.
type SlipView struct {
	PastMM   float64      `json:"past_mm"`
	RMSMM    float64      `json:"rms_mm" doc:"over all landmarks at the end"`
	CoMMM    float64      `json:"com_mm" doc:"of the centre of mass"`
	Moved    []MovedView  `json:"moved" doc:"the worst landmarks"`
	Verdict  string       `json:"verdict" enum:"accept,compensate,redo"`
	Remedies []RemedyView `json:"remedies"`
	Picture  draw.Picture `json:"picture" doc:"the finished toy with the slip"`
	Right    draw.Picture `json:"right" doc:"without it"`
	Rest     []SlipStep   `json:"rest" doc:"this step and those after it, if one folds on without noticing; empty when that is not computed for this step"`
	Stops    string       `json:"stops" doc:"why it cannot be folded on, or empty"`
}

// SlipStep is a step after a slip.
type SlipStep struct {
	No      int          `json:"no"`
	Picture draw.Picture `json:"picture"`
}

// MovedView is a landmark that ends up elsewhere.
type MovedView struct {
	Name  string  `json:"name"`
	Words string  `json:"words"`
	MM    float64 `json:"mm"`
}

// RemedyView is a later fold made off its place on purpose.
type RemedyView struct {
	Step   int     `json:"step"`
	PastMM float64 `json:"past_mm" doc:"past its target; below 0 short of it"`
	LeftMM float64 `json:"left_mm" doc:"what is left of the error, over all landmarks"`
}

// StepQuestion is about one step of a pattern on a sheet.
type StepQuestion struct {
	ID   string `path:"id" maxLength:"80"`
	Step int    `path:"step" minimum:"1" maximum:"400"`
	Body answer.SetupInput
}

type careInput struct {
	ID   string `path:"id" maxLength:"80"`
	Hand string `query:"hand" default:"adult" enum:"adult,child"`
	Body answer.SetupInput
}

type slipInput struct {
	StepQuestion
	PastMM   float64 `query:"past_mm" doc:"how far what was brought went past its target; below 0 short of it"`
	Landmark string  `query:"landmark" maxLength:"40" doc:"instead: a landmark of the finished toy that was measured"`
	OffMM    float64 `query:"off_mm" doc:"and how far it lies from its place"`
}

func (s *Routes) stepRoutes(api huma.API) {
	op := func(id, path, summary string) huma.Operation {
		return huma.Operation{OperationID: id, Method: http.MethodPost, Path: "/api/v1/patterns/{id}" + path, Summary: summary, MaxBodyBytes: answer.SmallBody}
	}
	huma.Register(api, answer.Long(op("care", "/care", "How exactly each step must be made, and what is normal")), s.care)
	huma.Register(api, answer.Long(op("reach", "/reach", "How far each knob goes on the sheet at hand")), s.reach)
	huma.Register(api, op("glance", "/steps/{step}/glance", "The paper half-way through a step, and its other side"), s.glance)
	huma.Register(api, huma.Operation{OperationID: "signs", Method: http.MethodGet, Path: "/api/v1/signs", Summary: "What the lines, arrows and signs of pictures mean"},
		func(context.Context, *struct{}) (*answer.Body[[]draw.Key], error) { return answer.OK(draw.Keys()) })
	huma.Register(api, op("look", "/steps/{step}/look", "A step looked at more closely"), s.look)
	huma.Register(api, op("motion", "/steps/{step}/motion", "The paper on its way through a step"), s.motion)
	huma.Register(api, op("whence", "/whence", "Where a point of the paper comes from, and where it goes"), s.whence)
	huma.Register(api, op("slip", "/steps/{step}/slip", "What a slip at a step does, and what makes up for it"), s.slip)
}

// folded replays a set-up that must fold.
func foldOf(in answer.SetupInput, pattern string) (*sequence.Replay, error) {
	p, setup, sh, err := in.Planned(pattern)
	if err != nil {
		return nil, err
	}
	r := p.Run(sh, setup.Knobs)
	ways.For(p).Write(r, setup.Written)
	if r.Err != nil {
		return nil, answer.Refuse("body.sheet", nil, fold.As(r.Err).Where())
	}
	return r, nil
}

func (in *StepQuestion) folded() (*sequence.Replay, error) {
	r, err := foldOf(in.Body, in.ID)
	if err == nil && in.Step > len(r.Steps) {
		err = answer.Refuse("path.step", in.Step, fmt.Sprintf("%s has %d steps", r.Pattern.Title, len(r.Steps)))
	}
	return r, err
}

func (s *Routes) care(ctx context.Context, in *careInput) (*answer.Body[[]CareView], error) {
	_, done, err := turn.Take(ctx)
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	defer done()
	r, err := foldOf(in.Body, in.ID)
	if err != nil {
		return nil, err
	}
	hand, _ := spread.FindHand(in.Hand)
	all, ferr := care.Of(r, hand)
	if ferr != nil {
		return nil, answer.Refuse("body.sheet", nil, fold.As(ferr).Told())
	}
	out := []CareView{}
	for _, c := range all {
		v := CareView{No: c.No, Made: c.Made, PerMM: c.PerMM, Worst: r.Pattern.Called(c.Worst), Class: string(c.Class), Author: c.Author, Share: c.Share,
			Layers: c.Layers, StackMM: c.StackMM, Tool: c.Tool, SlideMM: c.SlideMM, DriftMM: c.DriftMM, OpensDeg: c.OpensDeg, Strain: c.Strain, Soft: c.Soft, Cuts: c.Cuts, Fixes: c.Fixes}
		if c.Hold != nil {
			v.Hold = &[2]float64{c.Hold.X, -c.Hold.Y}
		}
		out = append(out, v)
	}
	return answer.OK(out)
}

func (s *Routes) look(_ context.Context, in *StepQuestion) (*answer.Body[LookView], error) {
	r, err := in.folded()
	if err != nil {
		return nil, err
	}
	d := r.Steps[in.Step-1]
	v := LookView{XRay: draw.XRay(d.Before, body.Measure(d.Before).Cells), Mistakes: []MistakeView{}}
	for _, m := range remarks.Mistakes(r.Pattern, r, in.Step) {
		v.Mistakes = append(v.Mistakes, MistakeView{m.Kind, m.Words, m.Cure, draw.Flat(m.After)})
	}
	v.Map.Picture, v.Map.Over = draw.Map(d.After)
	v.Map.Picture.WriteFlat(r.UpTo(in.Step).Notes)
	return answer.OK(v)
}

// GlanceView is what helps to see a step: the paper half-way, and its other side.
type GlanceView struct {
	Halfway *draw.Picture `json:"halfway,omitempty" doc:"the paper in the middle of the step, what moves shaded"`
	Why     string        `json:"why" doc:"why there is none of a step that needs one, or empty"`
	LeftOut string        `json:"left_out" doc:"what changes when an optional step is left out, or empty"`
	Other   *draw.Picture `json:"other,omitempty" doc:"the paper before a step that lies flat, seen from behind"`
}

func (s *Routes) glance(_ context.Context, in *StepQuestion) (*answer.Body[GlanceView], error) {
	r, err := in.folded()
	if err != nil {
		return nil, err
	}
	v := GlanceView{}
	if r.Steps[in.Step-1].Optional {
		v.LeftOut = remarks.WithoutOptional(r, func(s *fold.State) (float64, [2]float64) {
			m := body.Measure(s)
			return m.MassG, [2]float64{m.CoM.X, m.CoM.Y}
		})
	}
	if !draw.InRound(r, in.Step) {
		other, err := draw.OtherSide(r, in.Step)
		if err != nil {
			return nil, answer.AsProblem(err, "")
		}
		v.Other = &other
	}
	if op := r.Steps[in.Step-1].Op; draw.Halved(op) {
		if p, ok := draw.HalfwayOf(r, in.Step); ok {
			v.Halfway = &p
		} else {
			v.Why = "No picture half-way: the paper must bend in this step, and only stiff paper is drawn on its way."
		}
	}
	return answer.OK(v)
}

// MotionView is the paper on its way through a step, as pictures.
type MotionView struct {
	Shown  bool           `json:"shown" doc:"flat, stiff pieces get from before to after with every hinge whole"`
	Frames []draw.Picture `json:"frames" doc:"from before to after; the two alone when the motion is not shown"`
	View   [4]float64     `json:"view" doc:"what all frames take up together"`
	TornMM float64        `json:"torn_mm" doc:"the worst mismatch at a hinge on the way: what the paper must give"`
}

type turnedInput struct {
	StepQuestion
	Azimuth   float64 `query:"azimuth" minimum:"-180" maximum:"180" default:"24" doc:"from where it is looked at, degrees to the right"`
	Elevation float64 `query:"elevation" minimum:"-89" maximum:"89" default:"52" doc:"degrees above the table; below 0 from underneath"`
}

// framesShown is how many pictures a motion has: one every 7.5 degrees of a fold.
const framesShown = 25

// layerShown is how many times thicker than it is paper is drawn in the round.
const layerShown = 4

func (s *Routes) motion(_ context.Context, in *turnedInput) (*answer.Body[MotionView], error) {
	r, err := in.folded()
	if err != nil {
		return nil, err
	}
	c := draw.Slanted(in.Azimuth, in.Elevation)
	v := MotionView{Frames: []draw.Picture{}}
	m, shown := body.MotionOf(r, in.Step, framesShown)
	if v.Shown = shown; shown {
		v.TornMM = m.Residual
	} else {
		m.Poses = []body.Pose{body.Standing(before(r, in.Step)), body.Standing(r.UpTo(in.Step))}
	}
	for _, p := range m.Fanned(layerShown * r.Sheet.ThicknessMM) {
		f := draw.InSpace(p, c)
		f.CoM = nil
		v.Frames = append(v.Frames, f)
		v.View = union(v.View, f.View)
	}
	return answer.OK(v)
}

// before is a replay up to the step before; the flat sheet before the first.
func before(r *sequence.Replay, step int) *sequence.Replay { return r.UpTo(step - 1) }

// union is what two views take up together; the first may be empty.
func union(a, b [4]float64) [4]float64 {
	if a[2] == 0 {
		return b
	}
	x, y := math.Min(a[0], b[0]), math.Min(a[1], b[1])
	return [4]float64{x, y, math.Max(a[0]+a[2], b[0]+b[2]) - x, math.Max(a[1]+a[3], b[1]+b[3]) - y}
}

type whenceInput struct {
	ID   string  `path:"id" maxLength:"80"`
	Step int     `query:"step" minimum:"0" maximum:"400" doc:"the picture that is pointed at: after this step; 0 for the flat sheet"`
	X    float64 `query:"x" doc:"mm, as in the picture"`
	Y    float64 `query:"y"`
	Body answer.SetupInput
}

// whence tells where a point comes from and where it goes.
func (s *Routes) whence(_ context.Context, in *whenceInput) (*answer.Body[WhenceView], error) {
	r, err := foldOf(in.Body, in.ID)
	if err != nil {
		return nil, err
	}
	if in.Step > len(r.Steps) {
		return nil, answer.Refuse("query.step", in.Step, fmt.Sprintf("%s has %d steps", r.Pattern.Title, len(r.Steps)))
	}
	w, on := remarks.WhenceOf(r, in.Step, geom.Vec{X: in.X, Y: -in.Y})
	if !on {
		return nil, answer.Refuse("query.x", in.X, "there is no paper at this spot; point at the paper")
	}
	v := WhenceView{Words: fmt.Sprintf("%s from the left, %s from below", say.MM(w.At.X, 0), say.MM(w.At.Y, 0)), Sheet: [2]float64{w.At.X, -w.At.Y}, Steps: []StepSpot{}}
	if w.Landmark != "" {
		v.Words = r.Pattern.Called(w.Landmark)
	}
	for i, q := range w.Steps {
		spot := StepSpot{No: r.Steps[i].No}
		if q != nil {
			spot.At = &[2]float64{q.X, -q.Y}
		}
		v.Steps = append(v.Steps, spot)
	}
	return answer.OK(v)
}

func (s *Routes) slip(_ context.Context, in *slipInput) (*answer.Body[SlipView], error) {
	if !(math.Abs(in.PastMM) <= spread.MostSlipMM) {
		return nil, answer.Refuse("query.past_mm", in.PastMM, fmt.Sprintf("the slip is %s; it must be %s: fold it again when it is more", say.MM(in.PastMM, 1), say.Range(-spread.MostSlipMM, spread.MostSlipMM, 0)))
	}
	r, err := in.folded()
	if err != nil {
		return nil, err
	}
	if in.Landmark != "" {
		if !(in.OffMM >= 0 && in.OffMM <= 2*spread.MostSlipMM) {
			return nil, answer.Refuse("query.off_mm", in.OffMM, fmt.Sprintf("the landmark is %s off; it must be %s", say.MM(in.OffMM, 1), say.Range(0, 2*spread.MostSlipMM, 0)))
		}
		if in.PastMM, err = spread.PastFrom(r, in.Step, in.Landmark, in.OffMM); err != nil {
			return nil, answer.Refuse(map[error]string{spread.ErrNotCreased: "path.step", spread.ErrUnmoved: "query.landmark", spread.ErrTooFar: "query.off_mm"}[err], in.Landmark, err.Error())
		}
	}
	q, creased, ferr := spread.SlipAt(r, in.Step, in.PastMM)
	if ferr != nil {
		return nil, answer.Refuse("path.step", in.Step, fold.As(ferr).Told())
	}
	if !creased {
		return nil, answer.Refuse("path.step", in.Step, "nothing is creased by hand at this step, so nothing can slip")
	}
	v := SlipView{PastMM: q.PastMM, RMSMM: q.RMSMM, CoMMM: q.CoMMM.Len(), Moved: []MovedView{}, Remedies: []RemedyView{}, Rest: []SlipStep{}, Picture: draw.Flat(q.State), Right: draw.Flat(r.Final())}
	for _, m := range q.Moved {
		if len(v.Moved) < 4 {
			v.Moved = append(v.Moved, MovedView{m.Name, r.Pattern.Called(m.Name), m.MM})
		}
	}
	for _, m := range q.Remedies {
		if len(v.Remedies) < 3 {
			v.Remedies = append(v.Remedies, RemedyView(m))
		}
	}
	if on, folded := remarks.Slipped(r.Pattern, r, in.Step, in.PastMM); folded {
		for _, d := range on.Steps[min(in.Step-1, len(on.Steps)):] {
			v.Rest = append(v.Rest, SlipStep{d.No, draw.Flat(d.After)})
		}
		if on.Err != nil {
			v.Stops = fmt.Sprintf("step %d: %s", fold.As(on.Err).Step, fold.As(on.Err).Told())
		}
	}
	v.Verdict = string(q.Advice())
	return answer.OK(v)
}
