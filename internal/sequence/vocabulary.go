package sequence

import (
	"fmt"
	"slices"
)

// NameKind is what a name of a pattern stands for.
type NameKind string

// The kinds of names.
const (
	APoint  NameKind = "point"
	ALine   NameKind = "line"
	ANumber NameKind = "number"
)

// Vocabulary is what a way of moving adds to the language: the word after "moves", head
// statements that name what the way needs, steps that set its parts in the round, and
// set-up knobs that no line has to write.
type Vocabulary struct {
	Moves string
	Heads []Head
	Sets  []Setting
	// Knobs are what a pattern of this way may be given without writing it down. They bend
	// or press what is folded and crease nothing, so no step uses them. A pattern may write
	// a knob of the same name itself, with a default and a range of its own.
	Knobs []Knob
	// Implies gives the knob as this pattern has it, and the step it belongs to; ok is false
	// when the pattern lacks what the knob needs. Without it no knob is implied.
	Implies func(p *Pattern, k Knob) (knob Knob, step int, ok bool)
	// Entries are the words in the reference of the language.
	Entries []Entry
}

// Head is a statement at the head of a pattern that names landmarks or creases of it.
type Head struct {
	Word  string
	Kind  NameKind
	Least int    // how many names follow
	Most  int    // 0 for any number
	What  string // what is named, in words: "the front"
	Fix   string // an example
}

// Setting is a step that opens creases of the finished toy to an angle, by a word of its
// own: what it sets is then known as that part.
type Setting struct {
	Op    Op
	Title string // what the field calls the step
	// Rides tells that the part stands on another one, instead of on the body.
	Rides bool
	// From is what the angle is taken from, in words, and Says what an angle comes to; nil
	// when there is nothing to say.
	From string
	Says func(deg float64) string
}

// Language is the words that patterns are written in: those of the fold engine, which
// every pattern has, and those of ways of moving. The first way is meant where a pattern
// says nothing.
type Language struct{ Ways []Vocabulary }

func (l *Language) head(word string) (Head, bool) {
	for _, v := range l.Ways {
		if i := slices.IndexFunc(v.Heads, func(h Head) bool { return h.Word == word }); i >= 0 {
			return v.Heads[i], true
		}
	}
	return Head{}, false
}

// Setting is the one of a step's word; ok is false for the words of the fold engine.
func (l *Language) Setting(op Op) (Setting, bool) {
	for _, v := range l.Ways {
		if i := slices.IndexFunc(v.Sets, func(s Setting) bool { return s.Op == op }); i >= 0 {
			return v.Sets[i], true
		}
	}
	return Setting{}, false
}

func (l *Language) isHead(word string) bool { _, ok := l.head(word); return ok }

// moves are the words that may follow "moves".
func (l *Language) moves() []string {
	var out []string
	for _, v := range l.Ways {
		out = append(out, v.Moves)
	}
	return out
}

// StepWords are the words a step can begin with, in order.
func (l *Language) StepWords() []string {
	out := operationWords()
	for _, v := range l.Ways {
		for _, s := range v.Sets {
			out = append(out, string(s.Op))
		}
	}
	slices.Sort(out)
	return slices.Compact(out)
}

func (l *Language) headWords() []string {
	out := slices.Clone(headWords)
	for _, v := range l.Ways {
		for _, h := range v.Heads {
			out = append(out, h.Word)
		}
	}
	return out
}

// Heads are the names that a head statement of a way gives; none when it is not there.
func (p *Pattern) Heads(word string) []string { return p.heads[word] }

// Head is the first of them, "" when there is none.
func (p *Pattern) Head(word string) string {
	if h := p.heads[word]; len(h) > 0 {
		return h[0]
	}
	return ""
}

// StepNamed is the number of the step that makes a crease of that name; 0 when none does.
func (p *Pattern) StepNamed(name string) int {
	for _, s := range p.Steps {
		if name != "" && s.Name == name {
			return s.No
		}
	}
	return 0
}

// Setting is the last step that sets parts by a word; 0 when none does.
func (p *Pattern) Setting(op Op) int {
	no := 0
	for _, s := range p.Steps {
		if s.Op == op {
			no = s.No
		}
	}
	return no
}

// Words is the language the pattern was read in.
func (p *Pattern) Words() *Language { return p.language }

// headStatement reads the names of a head statement of a way.
func (p *parser) headStatement(h Head) {
	many := "names"
	if h.Least == 1 && h.Most == 1 {
		many = "the name"
	}
	kind := map[NameKind]string{APoint: "landmark", ALine: "crease"}[h.Kind]
	var given []string
	for p.peek().kind == tokWord && (h.Most == 0 || len(given) < h.Most) {
		given = append(given, p.next().text)
	}
	if len(given) < h.Least {
		p.fail(fmt.Sprintf("%s needs %s of a %s", h.What, many, kind), "write for example: "+h.Fix)
	}
	p.pat.heads[h.Word] = given
}

// checkHeads refuses names that stand for something else, once all are known.
func (p *parser) checkHeads() {
	for _, v := range p.language.Ways {
		for _, h := range v.Heads {
			for _, n := range p.pat.heads[h.Word] {
				p.wanted[n] = true
				if n == "" || p.names[n] == h.Kind {
					continue
				}
				kind, fix := "landmark", "name a point"
				if h.Kind == ALine {
					kind, fix = "crease", "name a crease"
				}
				p.failAt(1, fmt.Sprintf("%s %q is not a %s", h.What, n, kind), fix)
			}
		}
		for _, k := range v.Knobs {
			p.wanted[k.Name] = true // the way of moving uses them
		}
	}
}

// addImplied gives the pattern the knobs that its way of moving implies.
func (p *Pattern) addImplied() {
	for _, v := range p.language.Ways {
		if v.Moves != p.Moves || v.Implies == nil {
			continue
		}
		for _, k := range v.Knobs {
			if k, step, ok := v.Implies(p, k); ok {
				p.imply(k, step)
			}
		}
	}
}

// imply adds a set-up knob that no line writes; one of the same name that the pattern
// does write keeps its own default and range.
func (p *Pattern) imply(k Knob, step int) {
	if i := p.KnobIndex(k.Name); i >= 0 {
		own := &p.Knobs[i]
		own.Kind, own.Implied, own.Steps, own.Step, own.Named = SetUp, true, []int{step}, k.Step, k.Named
		return
	}
	k.Kind, k.Implied, k.Steps = SetUp, true, []int{step}
	p.Knobs = append(p.Knobs, k)
}
