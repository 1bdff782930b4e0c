package lang

import (
	"fmt"
	"maps"
	"regexp"
	"slices"
	"strings"

	"tussock/internal/say"
	"tussock/internal/sequence"
)

// Words for people may quote numbers in braces: {gap}, {gap / 2}, {dist(A, B)}; {count 2*n}
// is told without a unit, {deg a} as an angle. They are
// read with the step and reckoned on the sheet at hand. Words in brackets behind a name are
// said only where its number is not 0: [gap: Leave {gap}.]

var (
	quoted  = regexp.MustCompile(`\{[^{}]*\}`)
	unless0 = regexp.MustCompile(`\[(\w+): ([^\[\]]*)\]`)
)

// quotes reads the numbers that words of a step quote.
func (p *Parser) quotes(s *sequence.Step, words string) {
	all := quoted.FindAllString(words, -1)
	if strings.Count(words, "{") != len(all) || strings.Count(words, "}") != len(all) {
		p.failAt(1, "the words have a brace without its partner", "write the name of a knob in braces, for example {gap}")
	}
	toks, at := p.toks, p.i
	for _, m := range unless0.FindAllStringSubmatch(words, -1) {
		inner, _, _, _ := lexLine(m[1])
		p.toks, p.i = inner, 0
		s.Quotes = append(s.Quotes, sequence.Quote{Text: say.Prose(m[0]), Is: sequence.NumName(p.Known(sequence.ANumber)), Says: say.Prose(m[2])})
	}
	for _, text := range all {
		inner, problem, fix, _ := lexLine(text[1 : len(text)-1])
		if problem != "" {
			p.failAt(1, fmt.Sprintf("%s in the words: %s", text, problem), fix)
		}
		p.toks, p.i = inner, 0
		q := sequence.Quote{Text: text, Unit: "mm"}
		told := false
		for word, unit := range map[string]string{"count": "", "deg": "deg"} {
			if len(inner) > 2 && p.Accept(word) {
				q.Unit, told = unit, true
			}
		}
		q.Is = p.Number("the number in braces")
		p.atEnd()
		if name, plain := q.Is.(sequence.NumName); plain && !told {
			for _, k := range p.pat.Knobs {
				if k.Name == string(name) && !k.Plain {
					q.Unit = k.Unit
				}
			}
		}
		if !slices.ContainsFunc(s.Quotes, func(o sequence.Quote) bool { return o.Text == text }) {
			s.Quotes = append(s.Quotes, q)
		}
	}
	p.toks, p.i = toks, at
	if n := len(p.pat.Sources); n > 0 { // what they depend on, their step depends on
		maps.Copy(p.pat.Sources[n-1].Used, p.used)
	}
}

// requoted renames what words quote.
func requoted(words string, renamed func(string) string) string {
	return quoted.ReplaceAllStringFunc(words, func(q string) string { return name.ReplaceAllStringFunc(q, renamed) })
}

var name = regexp.MustCompile(`[\pL_][\pL\d_]*`)
