package sequence

import (
	"tussock/internal/fold"
	"tussock/internal/geom"
)

// Move carries out one motion of a step. A nominal run makes the plan and applies
// it; a run with errors moves its pieces along the lines given instead.
func (r *Course) Move(d *Done, lines []geom.Line, onSheet bool, build func() (fold.Plan, error)) error {
	if r.Sh != nil {
		return r.follows(lines)
	}
	var plan fold.Plan
	err := r.quietly(func() (err error) { plan, err = build(); return err })
	if err != nil {
		return err
	}
	after, err := r.State.Apply(plan)
	if err != nil {
		return err
	}
	if d.Moved == 0 {
		d.Moved = plan.Moved()
	}
	d.Moves = append(d.Moves, fold.Move{Before: r.State, After: after, Lines: lines, OnSheet: onSheet})
	r.Follow(r.State, after)
	r.setState(after)
	return nil
}

// Pass carries out a motion that no hand can get wrong: turning over, opening.
func (r *Course) Pass(d *Done, plan fold.Plan) error {
	if err := r.Move(d, nil, false, func() (fold.Plan, error) { return plan, nil }); err != nil || r.Sh != nil {
		return err
	}
	d.Moves[len(d.Moves)-1].Loose = true
	return nil
}
