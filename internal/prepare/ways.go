package prepare

import (
	"fmt"
	"slices"
	"strings"

	"tussock/internal/sheet"
)

// way is one way to a sheet: a pattern, and what it adds to the errors.
type way struct {
	id, name string
	needs    string // "scissors", or "" for none
	offs     []Off
	marks    int    // lengths taken with a ruler
	polygon  int    // corners that the piece should have, all sides equal; 0 for a rectangle
	text     string // of the pattern, after its head
}

func lines(l ...string) string { return strings.Join(l, "\n") }

// told writes a step with its words.
func told(step, words string) string { return step + "\n  say \"" + words + "\"" }

func num(v float64) string { return fmt.Sprintf("%.9f", v) }

var (
	foldOff    = func(what string) Off { return Off{what, handMM} }
	openAll    = told("unfold all", "Open it.")
	cutFlap    = "Cut along the edge of the flap that lies on top."
	reverseIt  = "Open the strip and fold it behind along the same crease. Turn it to and fro until the crease is soft."
	tearPull   = "Nick the end of the crease. Hold the flap flat and pull the strip away evenly."
	tearFlex   = "Go on turning the strip to and fro, nail on the crease, until it parts."
	diagonal   = told("valley bring bottom to left moving BR as d", "Bring the lower edge up to the left edge. The fold starts in the lower left corner.")
	stripFold  = told("valley along edge(BR,TR) moving TR over BR as s", "Fold the strip that sticks out down over the edge of the flap.")
	squareOffs = []Off{foldOff("the fold, laid edge on edge")}
)

// squares are the ways to the largest square of an upright sheet.
func squares(s sheet.Sheet) []way {
	w := num(s.WidthMM)
	tear := func(last string) string {
		return lines(diagonal, stripFold,
			told("unfold last", "Open the strip again."),
			told("mountain along s moving TR", reverseIt),
			told("unfold last", "Open the strip again."),
			told("tear along s removing TR", last), openAll)
	}
	return []way{
		{id: "square-cut", name: "One fold, one cut", needs: "scissors", offs: append(squareOffs[:1:1], Off{"the cut", cutMM}),
			text: lines(diagonal, told("cut along edge(BR,TR) removing TR", cutFlap), openAll)},
		{id: "square-doubled", name: "Two folds, both layers cut at once", needs: "scissors",
			offs: []Off{foldOff("the first fold"), foldOff("the second fold"), {"the cut, through both layers", cutMM}, {"layers creeping under the blade", creep(1, s.ThicknessMM)}},
			text: lines(diagonal,
				told("valley bring sheet("+w+","+w+") to BL moving TR layers all as e", "Halve the triangle: bring its upper right corner down to the lower left corner. The strip comes along."),
				told("cut along [BL BR] removing TR", "Cut along the left edge, through both layers at once."), openAll)},
		{id: "square-tear", name: "Torn, without scissors", offs: append(squareOffs[:1:1], Off{"the torn edge", tearMM}), text: tear(tearPull)},
		{id: "square-flex", name: "Flexed until it parts", offs: append(squareOffs[:1:1], Off{"the parted edge", tearMM}), text: tear(tearFlex)},
	}
}

// parted cuts or tears along a crease c and takes off what holds a landmark.
func parted(id, name, crease, words, off string, offs []Off, marks int) []way {
	fold := func(both string) string { return told("crease "+crease+both+" as c", words) }
	return []way{
		{id: id + "-cut", name: name + ", cut", needs: "scissors", marks: marks, offs: append(offs[:len(offs):len(offs)], Off{"the cut", cutMM}),
			text: lines(fold(""), told("cut along c removing "+off, "Cut along the crease."))},
		{id: id + "-tear", name: name + ", torn", marks: marks, offs: append(offs[:len(offs):len(offs)], Off{"the torn edge", tearMM}),
			text: lines(fold(" both ways"), told("tear along c removing "+off, "Turn the crease to and fro until it is soft, nick its end, and pull apart evenly."))},
	}
}

func halves(s sheet.Sheet) []way {
	offs := []Off{foldOff("the fold, halves differ by twice that")}
	return append(parted("half-across", "Halved across", "bring top to bottom", "Fold the upper edge down to the lower edge, and open.", "TL", offs, 0),
		parted("half-along", "Halved along", "bring left to right", "Fold the left edge over to the right edge, and open.", "BR", offs, 0)...)
}

// trims take the sheet down to a width and a height.
func trims(s sheet.Sheet, w, h float64) []way {
	var all []way
	type cut struct{ crease, off, words string }
	var cuts []cut
	at := func(mm float64) string { return number(mm) + " mm" }
	if s.HeightMM-h > 1e-6 {
		cuts = append(cuts, cut{"along par(bottom," + num(h) + ",T)", "T", "Mark " + at(h) + " from the lower edge on both long edges. Fold through the marks, and open."})
	}
	if s.WidthMM-w > 1e-6 {
		// The lower right corner is there whatever came off the top.
		cuts = append(cuts, cut{"along par(left," + num(w) + ",BR)", "BR", "Mark " + at(w) + " from the left edge at both ends. Fold through the marks, and open."})
	}
	if len(cuts) == 0 {
		return []way{{id: "as-it-is", name: "As it is", text: ""}}
	}
	for _, tear := range []bool{false, true} {
		v := way{id: "trim-cut", name: "Measured and cut", needs: "scissors", marks: 2 * len(cuts), offs: []Off{{"the marks", markMM}, {"the cut", cutMM}}}
		if tear {
			v = way{id: "trim-tear", name: "Measured and torn", marks: 2 * len(cuts), offs: []Off{{"the marks", markMM}, foldOff("the fold"), {"the torn edge", tearMM}}}
		}
		var text []string
		for i, c := range cuts {
			name := fmt.Sprintf("c%d", i+1)
			if tear {
				text = append(text, told("crease "+c.crease+" both ways as "+name, c.words),
					told("tear along "+name+" removing "+c.off, "Turn the crease to and fro until it is soft, nick its end, and pull apart evenly."))
			} else {
				text = append(text, told("crease "+c.crease+" as "+name, c.words), told("cut along "+name+" removing "+c.off, "Cut along the crease."))
			}
		}
		v.text = lines(text...)
		all = append(all, v)
	}
	return all
}

// margins strip edges off, one after the other.
func margins(s sheet.Sheet, w Want) []way {
	var all []way
	// What stays and what comes off is named by spots that are still there, whatever came off
	// before: the middle of what stays, and what lies abreast of it.
	spot := func(name string, x, y float64) string {
		return "point " + name + " = toward(toward(BL,BR," + num(x) + "),toward(TL,TR," + num(x) + ")," + num(y) + ")"
	}
	x, y := (w.LeftMM+s.WidthMM-w.RightMM)/2, (w.BottomMM+s.HeightMM-w.TopMM)/2
	edges := []struct {
		edge, off, words string
		mm               float64
	}{{"left", "offleft", "left", w.LeftMM}, {"right", "offright", "right", w.RightMM},
		{"bottom", "offbottom", "lower", w.BottomMM}, {"top", "offtop", "upper", w.TopMM}}
	spots := []string{spot("stays", x, y), spot("offleft", w.LeftMM/2, y), spot("offright", s.WidthMM-w.RightMM/2, y),
		spot("offbottom", x, w.BottomMM/2), spot("offtop", x, s.HeightMM-w.TopMM/2)}
	for _, tear := range []bool{false, true} {
		v := way{id: "margin-cut", name: "Cut off", needs: "scissors", offs: []Off{{"the cut", cutMM}}}
		op, how := "cut", "Cut the margin off, "
		if tear {
			v = way{id: "margin-tear", name: "Torn off", offs: []Off{{"the torn edge", tearMM}}}
			op, how = "tear", "Fold the margin to and fro along its holes or marks, and tear it off, "
		}
		text := slices.Clone(spots)
		for _, e := range edges {
			if e.mm > 0 {
				text = append(text, told(op+" along par("+e.edge+","+num(e.mm)+",stays) removing "+e.off, how+number(e.mm)+" mm from the "+e.words+" edge."))
			}
		}
		v.text = lines(text...)
		all = append(all, v)
	}
	return all
}
