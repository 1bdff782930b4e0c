// Package ways holds the ways of moving that the bench knows. A new one is written in a
// package of its own and entered here.
package ways

import (
	"tussock/internal/motion"
	"tussock/internal/motion/glide"
	"tussock/internal/motion/hop"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
)

// Way is a way of moving with what makes its toys.
type Way struct {
	motion.Way
	// On makes the bench for a pattern on a sheet.
	On func(*sequence.Pattern, sheet.Sheet) motion.Bench
	// Learn calibrates from trials; nil where nothing is learnt.
	Learn func([]motion.Observation) motion.Calibration
}

func gliders(p *sequence.Pattern, s sheet.Sheet) motion.Bench { return glide.NewShapes(p, s) }

func hoppers(p *sequence.Pattern, s sheet.Sheet) motion.Bench { return hop.NewShapes(p, s) }

// All are the ways of moving, in the order of the shelf.
var All = []*Way{
	{Way: glide.Way().Filled(), On: gliders},
	{Way: hop.Way().Filled(), On: hoppers, Learn: hop.Learn},
	played("flap"), played("spin"), played("reveal"),
}

// chips of the ways that have no model yet.
var chips = map[string][]motion.Chip{
	"reveal": {{Name: "opened both ways"}, {Name: "opened one way", Bad: true}, {Name: "bound", Bad: true}, {Name: "gaped in the middle", Bad: true}, {Name: "tore", Bad: true}},
}

// played describes a way of moving whose toys are played with and looked at: it is not
// predicted yet, and for fun its toys are thrown.
func played(name string) *Way {
	w := motion.Way{Name: name, Headline: "mass", Conditions: glide.Way().Conditions, Chips: chips[name], Constants: glide.Constants(), Limits: glide.Limits(), Accuracy: "for a flat plate in still air",
		Kinds: []motion.Kind{{Name: "play", Label: "Play", Asks: "What did it do?"}},
		Words: motion.Words{One: "trial", Many: "trials", Do: "Try it", Log: "Log it", Who: "Who", Motion: "Thrown", Busy: "Throwing it…",
			None: "Not tried yet. Play with it, and log what you saw.", Conditions: "The throw and the hall", Last: "Set-up knobs", Noting: "Tap what it did when you log it.",
			Unlike: "How this toy moves is not predicted yet; for fun it is thrown as the flat plate that it is folded."}}
	return &Way{Way: w.Filled(), On: gliders}
}

// Of is the way of moving of a name, as patterns have it.
func Of(name string) *Way {
	for _, w := range All {
		if w.Name == name {
			return w
		}
	}
	return All[0]
}
