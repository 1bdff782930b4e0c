package folding

import (
	"context"
	"sync"

	"tussock/internal/choose"
	"tussock/internal/sequence"
	"tussock/internal/shelf"
	"tussock/internal/web/answer"
)

// chosen are what the patterns of the shelf ask for, found once for each.
var chosen struct {
	sync.Mutex
	of map[*sequence.Pattern]choose.Toy
}

// allToys are those of the whole shelf, in its order. One that does not fold from its own
// sheet is left out.
func allToys() ([]choose.Toy, error) {
	all, err := shelf.All()
	if err != nil {
		return nil, err
	}
	chosen.Lock()
	defer chosen.Unlock()
	if chosen.of == nil {
		chosen.of = map[*sequence.Pattern]choose.Toy{}
	}
	var out []choose.Toy
	for _, p := range all {
		t, known := chosen.of[p]
		if !known {
			if t, err = choose.Of(p); err != nil {
				continue
			}
			chosen.of[p] = t
		}
		out = append(out, t)
	}
	return out, nil
}

// tell adds to a card what its pattern asks for and who its siblings are.
func tell(v *PatternView, p *sequence.Pattern) error {
	all, err := allToys()
	if err != nil {
		return err
	}
	v.Family, v.Credit, v.Needs, v.AddOns = p.Family, p.Credit, []string{}, []PatternRef{}
	if of, found := shelf.Find(p.Adapts); found && p.Adapts != "" {
		v.Adapts = &PatternRef{of.ID, of.Title}
	}
	for _, a := range shelf.AddOnsOf(p.ID) {
		v.AddOns = append(v.AddOns, PatternRef{a.ID, a.Title})
	}
	for _, t := range all {
		if t.ID != p.ID {
			continue
		}
		v.Level, v.Why, v.Layers = string(t.Level), t.Why(), t.Layers
		for _, n := range t.Needs {
			v.Needs = append(v.Needs, string(n))
		}
		easier, harder := choose.Siblings(t, all)
		v.Easier, v.Harder = refTo(easier), refTo(harder)
	}
	return nil
}

func refTo(t *choose.Toy) *PatternRef {
	if t == nil {
		return nil
	}
	return &PatternRef{t.ID, t.Title}
}

// ShelfView is what a wish leaves of the shelf.
type ShelfView struct {
	Kept []string   `json:"kept" doc:"ids, the easiest first"`
	Best string     `json:"best" doc:"the one to begin with; empty when none is left"`
	Out  []LeftView `json:"out" doc:"for each filter that is set, what it leaves out"`
}

// LeftView is what one filter leaves out.
type LeftView struct {
	Filter string   `json:"filter" enum:"paper,tools,minutes,layers,audience,moves,purpose"`
	Says   string   `json:"says"`
	Titles []string `json:"titles"`
}

type siftInput struct {
	Body struct {
		Paper    *answer.SheetInput `json:"paper,omitempty" doc:"the paper at hand"`
		Bare     bool               `json:"bare,omitempty" doc:"only what is named lies on the table besides"`
		Have     []string           `json:"have,omitempty" maxItems:"8"`
		Minutes  int                `json:"minutes,omitempty"`
		Layers   int                `json:"layers,omitempty" doc:"that fingers fold at once"`
		Audience string             `json:"audience,omitempty" maxLength:"40"`
		Moves    string             `json:"moves,omitempty" maxLength:"40"`
		Purpose  string             `json:"purpose,omitempty" enum:",play,show"`
	}
}

func (s *Routes) sift(_ context.Context, in *siftInput) (*answer.Body[ShelfView], error) {
	all, err := allToys()
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	b := in.Body
	w := choose.Wish{Bare: b.Bare, Minutes: b.Minutes, Layers: b.Layers, Audience: choose.Audience(b.Audience), Moves: b.Moves}
	for _, t := range b.Have {
		w.Have = append(w.Have, choose.Tool(t))
	}
	if b.Purpose != "" {
		show := b.Purpose == "show"
		w.Show = &show
	}
	if b.Paper != nil {
		spec, err := b.Paper.Spec()
		if err != nil {
			return nil, answer.AsProblem(err, "body.paper.")
		}
		sh, err := spec.Plain()
		if err != nil {
			return nil, answer.AsProblem(err, "body.paper.")
		}
		w.Paper = func(id string) bool {
			p, found := shelf.Find(id)
			if !found {
				return false
			}
			_, does := choose.From(p, sh)
			return does
		}
	}
	if err := w.Check(); err != nil {
		return nil, answer.AsProblem(err, "body.")
	}
	kept, out := choose.Sift(all, w)
	v := ShelfView{Kept: []string{}, Out: []LeftView{}}
	for i, t := range kept {
		if i == 0 {
			v.Best = t.ID
		}
		v.Kept = append(v.Kept, t.ID)
	}
	titles := map[string]string{}
	for _, t := range all {
		titles[t.ID] = t.Title
	}
	for _, l := range out {
		lv := LeftView{l.Filter, l.Says, []string{}}
		for _, id := range l.Toys {
			lv.Titles = append(lv.Titles, titles[id])
		}
		v.Out = append(v.Out, lv)
	}
	return answer.OK(v)
}
