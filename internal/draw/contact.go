package draw

import (
	"fmt"
	"strings"

	"tussock/internal/say"
	"tussock/internal/sequence"
)

// Sizes of a contact sheet, in its own units.
const (
	cellWide   = 250.0
	cellTall   = 220.0
	cellHead   = 22.0
	cellLine   = 12.0 // of the sentence
	cellWords  = 46   // letters in a line of it
	cellLines  = 4
	cellPerRow = 5
)

// Contact is all steps of a replay on one sheet: what to do at each, its sentence and,
// where the two ends do not show the way, the paper half-way or after it; last the
// finished toy as it is shown. Every picture is zoomed to its cell.
func Contact(r *sequence.Replay, c Colours, look Look, done Picture) string {
	n := len(r.Steps) + 1
	stages := Stages(r, look)
	rows := (n + cellPerRow - 1) / cellPerRow
	tall := cellHead + cellTall + cellLines*cellLine + 8
	var w svg
	w.f(`<svg xmlns="http://www.w3.org/2000/svg" width="%d" height="%d" viewBox="0 0 %d %d" font-family="sans-serif"><rect width="100%%" height="100%%" fill="#e6ece9"/>`,
		int(cellPerRow*cellWide), int(float64(rows)*tall), int(cellPerRow*cellWide), int(float64(rows)*tall))
	for i := range n {
		x, y := float64(i%cellPerRow)*cellWide, float64(i/cellPerRow)*tall
		var name, words string
		if i < len(r.Steps) {
			d := r.Steps[i]
			name, words = strings.TrimSpace(fmt.Sprintf("%d %s %s", d.No, d.Title(), d.Name)), say.Plain(d.Say)
			st := stages[i]
			second, halved := HalfwayOf(r, d.No)
			if st.After != nil {
				second, halved = *st.After, true
			}
			if halved {
				w.cell(st.Picture, &st.Over, c, x, y+cellHead, cellWide/2, cellTall)
				w.cell(second, nil, c, x+cellWide/2, y+cellHead, cellWide/2, cellTall)
			} else {
				w.cell(st.Picture, &st.Over, c, x, y+cellHead, cellWide, cellTall)
			}
		} else {
			name = "finished"
			w.cell(done, nil, c, x, y+cellHead, cellWide, cellTall)
		}
		w.f(`<text x="%s" y="%s" font-size="13" font-weight="700" fill="%s">%s</text>`, num(x+6), num(y+16), ink, escaped(name))
		for k, line := range wrapped(words, cellWords) {
			if k < cellLines {
				w.f(`<text x="%s" y="%s" font-size="10" fill="%s">%s</text>`, num(x+6), num(y+cellHead+cellTall+cellLine*float64(k+1)), ink, escaped(line))
			}
		}
	}
	w.f(`</svg>`)
	return say.Plain(w.b.String()) + "\n"
}

// cell draws a picture as large as it fits into a box.
func (w *svg) cell(p Picture, o *Overlay, c Colours, x, y, wide, tall float64) {
	v := p.View
	if o != nil {
		v = o.View
	}
	size := max(v[2], v[3])
	pad := size * 0.06
	w.f(`<svg x="%s" y="%s" width="%s" height="%s" viewBox="%s %s %s %s">`, num(x), num(y), num(wide), num(tall), num(v[0]-pad), num(v[1]-pad), num(v[2]+2*pad), num(v[3]+2*pad))
	w.paper(p, c, size)
	w.written(p, size)
	if o != nil {
		w.overlay(*o, size)
	}
	w.f(`</svg>`)
}

// wrapped breaks words into lines of so many letters at most.
func wrapped(text string, most int) []string {
	var out []string
	line := ""
	for _, word := range strings.Fields(text) {
		if line != "" && len([]rune(line))+1+len([]rune(word)) > most {
			out, line = append(out, line), ""
		}
		line = strings.TrimSpace(line + " " + word)
	}
	if line == "" {
		return out
	}
	return append(out, line)
}
