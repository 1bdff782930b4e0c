package prints

import (
	"slices"
	"strings"
	"sync"
	"unicode"

	"golang.org/x/image/font"
	"golang.org/x/image/font/gofont/goregular"
	"golang.org/x/image/font/sfnt"
	"golang.org/x/image/math/fixed"
)

// The print's own font: Latin, Greek and Cyrillic. A PDF carries the letters it uses.
const family = "print"

var printed = sync.OnceValue(func() *sfnt.Font {
	f, err := sfnt.Parse(goregular.TTF)
	if err != nil {
		panic(err) // the font is part of the program
	}
	return f
})

// finest is how many units an em is measured in.
const finest = 1000

// Unprinted are the letters of a text that the print's font lacks, each once, in the order
// of reading. A PDF has boxes for them; SVG leaves them to who draws it.
func Unprinted(text string) string {
	var out []rune
	for _, r := range text {
		if _, known := letter(r); !known && !unicode.IsSpace(r) && !slices.Contains(out, r) {
			out = append(out, r)
		}
	}
	return string(out)
}

// widths are those of letters that were asked for before.
var widths sync.Map

type width struct {
	em    float64
	known bool
}

// letter is the width of a letter as a part of the type's size; known is false when the
// font lacks it, and the width then that of its box.
func letter(r rune) (em float64, known bool) {
	w, found := widths.Load(r)
	if !found {
		em, known = advance(r)
		w, _ = widths.LoadOrStore(r, width{em, known})
	}
	return w.(width).em, w.(width).known
}

func advance(r rune) (em float64, known bool) {
	var b sfnt.Buffer
	i, err := printed().GlyphIndex(&b, r)
	if err != nil {
		i = 0
	}
	w, err := printed().GlyphAdvance(&b, i, fixed.I(finest), font.HintingNone)
	if err != nil {
		return 1, false
	}
	return float64(w) / 64 / finest, i != 0
}

// wideMM is how wide a text prints in a size, mm.
func wideMM(text string, sizeMM float64) float64 {
	var em float64
	for _, r := range text {
		w, _ := letter(r)
		em += w
	}
	return em * sizeMM
}

// paragraph breaks a text into lines no wider than so many mm, between words, and inside of
// a word only when it is too wide by itself; never inside of a letter.
func paragraph(text string, width, sizeMM float64) []string {
	var out []string
	line := ""
	for _, word := range strings.Fields(text) {
		if line != "" && wideMM(line+" "+word, sizeMM) <= width {
			line += " " + word
			continue
		}
		if line != "" {
			out = append(out, line)
		}
		for wideMM(word, sizeMM) > width {
			head := begin(word, width, sizeMM)
			out, word = append(out, head), word[len(head):]
		}
		line = word
	}
	if line != "" {
		out = append(out, line)
	}
	return out
}

// begin is as much of a text as fits, a letter at least, with the accents that belong to it.
func begin(text string, width, sizeMM float64) string {
	end := 0
	for i, r := range text {
		if i > 0 && !unicode.Is(unicode.Mn, r) && wideMM(text[:i]+string(r), sizeMM) > width {
			break
		}
		end = i + len(string(r))
	}
	return text[:end]
}

// atMost are the first lines of a paragraph, one at least; what is left out is told by three dots.
func atMost(lines int, text string, width, sizeMM float64) []string {
	all := paragraph(text, width, sizeMM)
	if len(all) == 0 {
		return []string{""}
	}
	if len(all) <= lines {
		return all
	}
	const more = "…"
	last := strings.Join(all[lines-1:], " ")
	return append(all[:lines-1:lines-1], strings.TrimRight(begin(last, width-wideMM(more, sizeMM), sizeMM), " ")+more)
}
