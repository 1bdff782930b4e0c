package sequence

import "tussock/internal/geom"

// NameKind is what a name of a pattern stands for.
type NameKind string

// The kinds of names.
const (
	APoint  NameKind = "point"
	ALine   NameKind = "line"
	ANumber NameKind = "number"
	AWord   NameKind = "word" // of the author's own, that names nothing else
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
	// Check looks whether what is named is there in the folded toy, and says what is
	// missing; nil where nothing can be.
	Check func(r *Replay, names []string) string
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

// Heads are the names that a head statement of a way gives; none when it is not there.
func (p *Pattern) Heads(word string) []string { return p.HeadNames[word] }

// Head is the first of them, "" when there is none.
func (p *Pattern) Head(word string) string {
	if h := p.HeadNames[word]; len(h) > 0 {
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

// Reader is what reads patterns: the language.
type Reader interface {
	// Standing is the centre of mass of the toy as it stands in the round, where it lies
	// over the plane of the piece that stays; false where nothing knows how toys stand.
	Standing(r *Replay) (geom.Vec, bool)
	Parse(file, text string) (*Pattern, error)
	// Missing says what a head statement of its way names that the folded toy does not have,
	// and in which line; "" when all is there.
	Missing(r *Replay) (line int, why string)
	// IsHead tells whether a line that begins with a word is a head statement of a way.
	IsHead(word string) bool
}

// Again reads another text in the language that the pattern was read in.
func (p *Pattern) Again(text string) (*Pattern, error) { return p.Reader.Parse(p.File, text) }

// IsHead tells whether a line that begins with a word names what the way needs.
func (p *Pattern) IsHead(word string) bool { return p.Reader.IsHead(word) }

// AddImplied gives the pattern the knobs that its way of moving implies.
func (p *Pattern) AddImplied(ways []Vocabulary) {
	for _, v := range ways {
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

// Entry is one word of the pattern language: what is written after it, what it
// means, and a small pattern that uses it. A test folds every example, and the
// reference for people is written from these entries.
type Entry struct {
	Group   string // head, place, line, fold, step, flag, check
	Word    string
	Syntax  string
	Meaning string
	Example string
	IDs     []string // the alignments and operations of the needs that it is for
}
