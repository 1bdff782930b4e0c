package folding

import (
	"tussock/internal/bench"
	"tussock/internal/body"
	"tussock/internal/draw"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
	"tussock/internal/ways"
)

// Card is a toy as lists show it: nothing of its steps is drawn.
type Card struct {
	Thickest int
	Picture  *draw.Picture // finished, nil when it cannot be folded
	Flat     *draw.Picture // the same, folded flat
}

// Card is the cached way from pattern, sheet and knobs to a card.
func (s *Routes) Card(p *sequence.Pattern, setup bench.Setup) (Card, error) {
	setup.Knobs = p.FullKnobs(setup.Knobs)
	setup.Recipes = nil
	key, err := replayKey(p, setup)
	if err != nil {
		return Card{}, err
	}
	if c, ok := s.cards.Get(key); ok {
		return c, nil
	}
	sh, err := sheet.New(setup.Sheet.WidthMM, setup.Sheet.HeightMM, setup.Sheet.GSM, setup.Sheet.ThicknessMM)
	if err != nil {
		return Card{}, err
	}
	var c Card
	if r := p.Run(sh, setup.Knobs); r.Err == nil {
		ways.For(p).Write(r, setup.Written)
		m := body.Measure(r.Final())
		flat := draw.At(r, len(r.Steps))
		flat.Balance(m.CoM)
		c = Card{Thickest: m.MaxLayers, Picture: &flat, Flat: &flat}
		if f := ways.For(p).Finish(r, m); f.Round != nil {
			c.Picture = f.Round
		}
	}
	s.cards.Add(key, c, c)
	return c, nil
}
