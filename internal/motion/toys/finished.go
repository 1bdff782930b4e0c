package toys

import (
	"tussock/internal/body"
	"tussock/internal/draw"
	"tussock/internal/sequence"
)

// Finished is the finished toy for people: sizes, and pictures as its way of moving shows
// it. Round is nil where all of it is flat, Second where one look is enough.
type Finished struct {
	MassG            float64
	LengthMM, SpanMM float64
	Sizes            []Size
	Round, Second    *draw.Picture
	SecondTitle      string
	SecondSays       string
}

// Finish shows a replay that went to its end; flat is its measure, pressed flat.
func (w *Way) Finish(r *sequence.Replay, flat body.Flat) Finished {
	if w.Show != nil {
		if s, ok := w.Show(r); ok {
			round, second := draw.Round(s.Pose, s.Round), draw.Round(s.Pose, s.Second)
			return Finished{MassG: s.Pose.Weigh().G, LengthMM: s.LengthMM, SpanMM: s.SpanMM, Sizes: s.Sizes, Round: &round, Second: &second, SecondTitle: s.SecondTitle, SecondSays: s.SecondSays}
		}
	}
	pose := body.Standing(r)
	f := Finished{MassG: pose.Weigh().G, LengthMM: flat.Box.Height(), SpanMM: flat.Box.Width()}
	f.Sizes = []Size{{Label: "Mass", Value: f.MassG, Unit: "g"}, {Label: "Folded flat", Value: f.SpanMM, By: &f.LengthMM, Unit: "mm"}}
	if draw.Shaped(pose, len(r.Openings)) {
		round := draw.InSpace(pose, Ordinary())
		f.Round = &round
	}
	return f
}

// Picture is the finished toy as it is looked at: in the round where it is not all flat.
func (w *Way) Picture(r *sequence.Replay) draw.Picture {
	p := draw.At(r, len(r.Steps))
	if r.Err == nil {
		if f := w.Finish(r, body.Measure(r.Final())); f.Round != nil {
			p = *f.Round
		}
	}
	p.CoM = nil
	return p
}
