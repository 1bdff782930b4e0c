package tellers

import (
	"cmp"
	"fmt"
	"slices"
	"strings"
	"unicode"

	"tussock/internal/motion"
	"tussock/internal/motion/reveal/teller"
	"tussock/internal/motion/toys"
)

// usual are the words and numbers that are reckoned with as long as nobody has written any.
func usual() motion.Written {
	w := motion.Written{}
	for i, c := range toys.Tints()[:teller.Panels] {
		w[fmt.Sprintf("%s %d", teller.Outer, i+1)] = motion.Mark{Text: c.Name, Colour: c.Colour}
	}
	for i := range teller.Halves {
		w[fmt.Sprintf("%s %d", teller.Number, i+1)] = motion.Mark{Text: fmt.Sprint(i + 1)}
	}
	return w
}

// colourOf is the colour that a word names, in one of five languages; "" for none.
func colourOf(word string) string {
	for i, c := range toys.Tints() {
		for _, name := range append(strings.Fields(otherNames[i]), c.Name) {
			if strings.EqualFold(name, word) {
				return c.Colour
			}
		}
	}
	return ""
}

// otherNames of the colours of the palette: German, French, Spanish, Greek.
var otherNames = []string{"ROT ROUGE ROJO ΚΟΚΚΙΝΟ", "BLAU BLEU AZUL ΜΠΛΕ", "GRÜN VERT VERDE ΠΡΑΣΙΝΟ", "GELB JAUNE AMARILLO ΚΙΤΡΙΝΟ", "ROSA ROSE ΡΟΖ", "NARANJA ΠΟΡΤΟΚΑΛΙ", "GRAU GRIS ΓΚΡΙ", "BRAUN BRUN MARRÓN ΚΑΦΕ"}

// Letters are those of a word that are spelled, each with its accents: one move each.
func Letters(word string) []string {
	out := []string{}
	for _, r := range word {
		switch {
		case unicode.IsLetter(r):
			out = append(out, string(r))
		case unicode.Is(unicode.Mn, r) && len(out) > 0:
			out[len(out)-1] += string(r)
		}
	}
	return out
}

// spelled is the word that is spelled of an outer panel: its text, else its picture, else its
// colour by name.
func spelled(m motion.Mark) string {
	if m.Text != "" || m.Picture != "" && !toys.IsShape(m.Picture) {
		return m.Text
	}
	if m.Picture != "" {
		return m.Picture
	}
	for _, c := range toys.Tints() {
		if strings.EqualFold(c.Colour, m.Colour) {
			return c.Name
		}
	}
	return ""
}

func place(kind string, no int) string { return fmt.Sprintf("%s %d", kind, no+1) }

// content is what a teller says, as its game needs it.
type content struct {
	words    [teller.Panels]string
	numbers  [teller.Halves]string
	messages [teller.Halves]string
	assumed  bool // nobody has written words or numbers yet: the usual ones
	game     teller.Game
}

// contentOf reads what is written; rounds are how often a number is counted.
func contentOf(w motion.Written, rounds int) content {
	c := content{game: teller.Game{Rounds: rounds}}
	has := func(kind string) bool {
		for p := range w {
			if strings.HasPrefix(p, kind+" ") {
				return true
			}
		}
		return false
	}
	words, numbers := w, w
	if !has(teller.Outer) {
		words, c.assumed = usual(), true
	}
	if !has(teller.Number) {
		numbers, c.assumed = usual(), true
	}
	for i := range c.words {
		c.words[i] = spelled(words[place(teller.Outer, i)])
		c.game.Words[i] = len(Letters(c.words[i]))
	}
	for i := range c.numbers {
		c.numbers[i] = numbers[place(teller.Number, i)].Text
		c.game.Numbers[i], _ = toys.NumberOf(c.numbers[i])
		c.messages[i] = w[place(teller.Message, i)].Text
	}
	return c
}

// message is what comes up, in words.
func (c content) message(half int) string {
	return cmp.Or(c.messages[half], fmt.Sprintf("the message under %s", c.number(half)))
}

func (c content) number(half int) string {
	return cmp.Or(c.numbers[half], fmt.Sprintf("place %d", half+1))
}

// listed are numbers in words: 1, 4, 5 and 8.
func (c content) listed(halves []int) string {
	var all []string
	for _, h := range halves {
		all = append(all, c.number(h))
	}
	if len(all) < 2 {
		return strings.Join(all, "")
	}
	return strings.Join(all[:len(all)-1], ", ") + " and " + all[len(all)-1]
}

// faults are what the game finds wrong in what is written.
func faults(_ []toys.Place, w motion.Written) (out []toys.Fault) {
	c := contentOf(w, 1)
	if c.assumed {
		return nil
	}
	for i, word := range c.words {
		m := w[place(teller.Outer, i)]
		if word != "" && c.game.Words[i] == 0 {
			out = append(out, toys.Fault{Place: place(teller.Outer, i), Kind: "moves", Says: fmt.Sprintf("Outer panel %d: “%s” has no letters to spell, so it is not moved at all.", i+1, word)})
		} else if word == "" && (m.Colour != "" || m.Picture != "") {
			out = append(out, toys.Fault{Place: place(teller.Outer, i), Kind: "moves", Says: fmt.Sprintf("Outer panel %d has nothing that can be spelled: write a word.", i+1)})
		}
	}
	for i, n := range c.game.Numbers {
		if n == 0 && c.numbers[i] != "" {
			out = append(out, toys.Fault{Place: place(teller.Number, i), Kind: "zero", Says: fmt.Sprintf("Number %d is %s: it moves nothing, and the same four numbers stay open.", i+1, c.numbers[i])})
		}
	}
	if s, one := c.game.OneParity(); one {
		parity := "an odd"
		if s == teller.B {
			parity = "an even"
		}
		out = append(out, toys.Fault{Kind: "parity", Says: fmt.Sprintf("All four words have %s number of letters: every game opens %s first, with %s. Without a number that is counted, only their messages come up.", parity, s, c.listed(s.Visible()))})
	}
	return out
}

// follow reads a written-down play: the word, the numbers that were counted, and the one that
// was opened, in order; words between them do not matter.
func follow(w motion.Written, play string) (out toys.Followed, err error) {
	c := contentOf(w, 0)
	fields := parts(play)
	if len(fields) == 0 {
		return out, fmt.Errorf("write the word that was spelled, then the numbers in order, such as %s %s %s", c.words[0], c.number(0), c.number(3))
	}
	panel, taken := c.begun(fields)
	if panel < 0 {
		return out, fmt.Errorf("%s is on no outer panel; there are %s", fields[0], strings.Join(c.words[:], ", "))
	}
	out.Moves = append(out.Moves, toys.FollowedMove{OK: true, Says: fmt.Sprintf("%s: %d letters, so it opens %s and shows %s.", c.words[panel], c.game.Words[panel], teller.After(c.game.Words[panel]), c.listed(teller.After(c.game.Words[panel]).Visible()))})
	side := teller.After(c.game.Words[panel])
	numbers := fields[taken:]
	for i, f := range numbers {
		half := c.find(f, side)
		if half < 0 {
			return out, fmt.Errorf("%s is none of the numbers; there are %s", f, strings.Join(c.numbers[:], ", "))
		}
		last := i == len(numbers)-1
		if teller.Shown(half) != side {
			out.Moves = append(out.Moves, toys.FollowedMove{Says: fmt.Sprintf("%s: it does not show. The toy is open %s and shows %s.", f, side, c.listed(side.Visible()))})
			out.Says = fmt.Sprintf("The slip is at move %d: %s lies shut away.", i+2, f)
			out.Fix = fmt.Sprintf("It could have been %s. If somebody did read %s there, a move too many or too few was made before.", c.listed(side.Visible()), f)
			return out, nil
		}
		if last {
			out.OK = true
			out.Moves = append(out.Moves, toys.FollowedMove{OK: true, Says: fmt.Sprintf("%s is opened: %s", f, c.message(half))})
			out.Says = "That play can be: " + c.message(half)
			return out, nil
		}
		was := side
		side = side.Moved(c.game.Numbers[half])
		turn := "another four"
		if side == was {
			turn = "the same four"
		}
		out.Moves = append(out.Moves, toys.FollowedMove{OK: true, Says: fmt.Sprintf("%s: %s moves, %s show: %s.", f, f, turn, c.listed(side.Visible()))})
	}
	out.Says = "No number was opened at the end."
	out.Fix = fmt.Sprintf("Open one of %s.", c.listed(side.Visible()))
	return out, nil
}

// parts are the words and numbers of a text.
func parts(text string) []string {
	return strings.FieldsFunc(text, func(r rune) bool { return unicode.IsSpace(r) || strings.ContainsRune(",;.:→>-", r) })
}

// begun is the panel whose word a play begins with, -1 for none, and how many parts that word
// takes: SEA PINK takes two.
func (c content) begun(fields []string) (panel, taken int) {
	for n := len(fields); n > 0; n-- {
		word := strings.Join(fields[:n], "")
		if i := slices.IndexFunc(c.words[:], func(q string) bool { return q != "" && strings.EqualFold(strings.Join(parts(q), ""), word) }); i >= 0 {
			return i, n
		}
	}
	return -1, 0
}

// find is the half of a number, one that shows first where it stands twice; -1 for none.
func (c content) find(number string, side teller.Side) int {
	found := -1
	for h, n := range c.numbers {
		if n == number && (found < 0 || teller.Shown(h) == side) {
			found = h
		}
	}
	return found
}
