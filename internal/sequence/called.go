package sequence

import (
	"fmt"
	"strings"

	"tussock/internal/sequence/basis"
)

// Called is what people call a landmark or crease: the words the pattern gives with
// "called", the customary words for corners and edges, else words made from what it is.
func (p *Pattern) Called(name string) string {
	for _, words := range []map[string]string{p.CalledWords, basis.Points, basis.Lines, p.MadeWords} {
		if w, ok := words[name]; ok {
			return w
		}
	}
	if strings.HasPrefix(name, CutEdge) {
		return CutEdge
	}
	return name
}

// mostMade is of how many words a name may be made; longer ones nobody follows.
const mostMade = 14

// NameTheRest makes words for names that the author called nothing: a landmark is said by
// how it is found, or by when; a crease by its step.
func (p *Pattern) NameTheRest() {
	unfolded := &Course{Pat: p}
	next := 1
	for _, s := range p.Stmts {
		switch s := s.(type) {
		case StepStmt:
			next = s.Step + 2
			if st := p.Steps[s.Step]; st.Name != "" {
				p.make(st.Name, fmt.Sprintf("the crease of step %d", st.No))
			}
		case PointStmt:
			w := s.P.Words(unfolded)
			on, given := s.P.(PointOnSheet)
			if given && unfolded.varies(on.X, on.Y) || len(strings.Fields(w)) > mostMade {
				w = fmt.Sprintf("the mark for step %d", min(next, len(p.Steps)))
			}
			p.make(s.Name, w)
		}
	}
}

func (p *Pattern) make(name, words string) {
	if p.Called(name) != name {
		return
	}
	p.MadeWords[name] = words
}
