package tellers

import (
	"fmt"

	"tussock/internal/draw"
	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/motion/reveal/teller"
	"tussock/internal/motion/toys"
	"tussock/internal/sequence"
)

// Writing is how fortune tellers are written on.
func Writing() *toys.Writing {
	return &toys.Writing{
		Zones: []toys.Zone{
			{Name: teller.Outer, Label: "Outer panels", Says: "A word that is spelled, one move a letter; a colour or a picture is spelled by its name.", Texts: true, Colours: true, Pictures: true, Takes: toys.TakesWords},
			{Name: teller.Number, Label: "Numbers", Says: "Whole numbers that are counted, one move each.", Texts: true, Numbers: true, Colours: true, Takes: toys.TakesNumbers},
			{Name: teller.Message, Label: "Messages", Says: "What comes up: a wish, a thing to do, a riddle. Be kind, and write nothing about real people.", Texts: true, Colours: true, Read: true, Takes: toys.TakesMessages},
		},
		Places: func(r *sequence.Replay) ([]toys.Place, error) { g, err := Of(r); return g.Places, err },
		Views:  views,
		Faults: faults,
		Colour: colourOf,
		Follow: follow,
	}
}

// readDeg is from how far above the table one reads an open teller; half of full is how far it
// is drawn open.
const readDeg, drawnDeg = 80.0, 36.0

// views are the toy from outside, its numbers, its messages with all flaps raised, and both
// openings.
func views(r *sequence.Replay, inks []draw.Ink) []toys.View {
	at := pressed(r)
	flat := r.Start
	if at > 0 {
		flat = r.Steps[at-1].After
	}
	show := func(s *fold.State) draw.Picture {
		p := draw.Flat(s)
		p.Ink(s, inks)
		return p
	}
	out := []toys.View{{Name: "outside", Title: "Outside", Says: "The side with the pockets: four panels, a word or a picture on each.", Picture: show(over(flat))},
		{Name: "numbers", Title: "Numbers", Says: "The other side, flaps shut: eight numbers.", Picture: show(flat)}}
	if raised := raised(r, at); raised != nil {
		out = append(out, toys.View{Name: "messages", Title: "Messages", Says: "Flaps raised: a message under each number, read from the middle outward.", Picture: show(raised)})
	}
	o := newOpener(r)
	for _, side := range []teller.Side{teller.A, teller.B} {
		out = append(out, toys.View{Name: []string{"a", "b"}[side], Title: "Open " + side.String(), Says: fmt.Sprintf("Pulled apart %s: these four numbers show.", side), Picture: o.seen(side, geom.Rad(drawnDeg), inks)})
	}
	return out
}

// seen is a picture of the toy opened one way.
func (o opener) seen(side teller.Side, gamma float64, inks []draw.Ink) draw.Picture {
	p, c := o.at(side, gamma), draw.Slanted(0, readDeg)
	pic := draw.InSpace(p, c)
	pic.InkRound(p, c, inks)
	return pic
}

// over is a state turned over from side to side.
func over(s *fold.State) *fold.State {
	box := s.Box()
	x := (box.MinX + box.MaxX) / 2
	line, ok := geom.LineThrough(geom.Vec{X: x, Y: box.MinY}, geom.Vec{X: x, Y: box.MaxY})
	if !ok {
		return s
	}
	turned, err := s.Apply(s.Whole(geom.Reflection(line)))
	if err != nil {
		return s
	}
	return turned
}

// raised is the toy before its flaps were folded over the numbers: the state after the last
// step that turned it over. nil when there is none.
func raised(r *sequence.Replay, before int) *fold.State {
	for i := before - 1; i >= 0; i-- {
		if r.Steps[i].Op == sequence.OpTurn {
			return r.Steps[i].After
		}
	}
	return nil
}
