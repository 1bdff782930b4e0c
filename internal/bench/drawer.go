package bench

import (
	"cmp"
	"fmt"

	"tussock/internal/given"
	"tussock/internal/sheet"
)

// Drawer is what lies in the drawer while sheets are taken out and pieces put in.
type Drawer struct {
	Papers  []Paper
	touched map[int]bool
}

func (d *Drawer) touch(i int) *Paper {
	if d.touched == nil {
		d.touched = map[int]bool{}
	}
	d.touched[i] = true
	return &d.Papers[i]
}

// Take takes sheets of a paper out, as far as they are counted, and says what paper it is.
// A paper that is not there is ordinary.
func (d *Drawer) Take(id int64, sheets int) Paper {
	for i, p := range d.Papers {
		if p.ID != id || id == 0 {
			continue
		}
		if p.Left != nil && sheets > 0 {
			left := max(0, *p.Left-sheets)
			d.touch(i).Left = &left
		}
		return d.Papers[i]
	}
	return Paper{Stiffness: string(sheet.Ordinary)}
}

// Keep puts so many equal pieces in, cut from what is called of: onto the pile of the same
// size if there is one.
func (d *Drawer) Keep(of string, piece SheetSpec, cut Paper, count int) {
	for i, p := range d.Papers {
		if p.Origin == of && p.Sheet.WidthMM == piece.WidthMM && p.Sheet.HeightMM == piece.HeightMM && p.Left != nil {
			left := *p.Left + count
			d.touch(i).Left = &left
			return
		}
	}
	name := []rune("Leftover of " + of)
	piece.Paper = string(name[:min(len(name), MaxName)])
	d.Papers = append(d.Papers, Paper{Name: piece.Paper, Sheet: piece, Grain: cut.Grain, Stiffness: cmp.Or(cut.Stiffness, string(sheet.Ordinary)), Left: &count, Origin: of})
	d.touch(len(d.Papers) - 1)
}

// Changed are the papers that are not as they were; new ones have no id.
func (d *Drawer) Changed() []Paper {
	var out []Paper
	for i, p := range d.Papers {
		if d.touched[i] {
			out = append(out, p)
		}
	}
	return out
}

// Check refuses piles that are too high.
func (d *Drawer) Check() error {
	for _, p := range d.Changed() {
		if p.Left != nil && *p.Left > MaxLeft {
			return &given.Error{Field: "pieces", Value: *p.Left, Want: fmt.Sprintf("at most %d sheets of a size", MaxLeft)}
		}
	}
	return nil
}
