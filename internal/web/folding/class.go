package folding

import (
	"bytes"
	"cmp"
	"context"
	"fmt"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"tussock/internal/motion"
	"tussock/internal/motion/toys"
	"tussock/internal/packs"
	"tussock/internal/prints"
	"tussock/internal/say"
	"tussock/internal/ways"
	"tussock/internal/web/answer"
)

type classInput struct {
	answer.PathID
	Packs  []string `query:"packs" minItems:"1" maxItems:"8" doc:"ids of packs; toys take them in turn"`
	Count  int      `query:"count" minimum:"1" maximum:"40" default:"8" doc:"toys"`
	Seed   int64    `query:"seed" minimum:"0" maximum:"1000000" doc:"another one draws other messages"`
	Write  string   `query:"write" enum:"filled,half,blank" default:"filled"`
	Page   string   `query:"page" enum:"auto,a4,letter" default:"auto"`
	Units  string   `query:"units" enum:"mm,in" default:"mm"`
	BandMM float64  `query:"band_mm" minimum:"0" maximum:"10" doc:"half the width of the band within which a fold is good"`
}

func (s *Routes) classRoutes(api huma.API) {
	huma.Register(api, huma.Operation{OperationID: "print-class-set", Method: http.MethodGet, Path: "/api/v1/builds/{id}/class-set", Summary: "A toy that is written on for everybody in a class, each with messages of its own, and a list for the leader"}, s.classSet)
}

// one is one toy of a class set.
type one struct {
	no      int
	pack    packs.Pack
	written motion.Written
	entries []packs.Entry
	under   []string // the numbers that its messages lie under, in order
	long    []string // what cannot be read on it
}

func (s *Routes) classSet(ctx context.Context, in *classInput) (*answer.File, error) {
	b, r, err := s.built(ctx, in.ID)
	if err != nil {
		return nil, err
	}
	q := ways.For(r.Pattern).Writing
	if q == nil || r.Err != nil {
		return nil, answer.Refuse("path.id", in.ID, r.Pattern.Title+" is not written on, or cannot be folded so")
	}
	places, err := q.Places(r)
	if err != nil {
		return nil, answer.Refuse("path.id", in.ID, err.Error())
	}
	if _, messages := q.Wants(places); messages == 0 {
		return nil, answer.Refuse("path.id", in.ID, r.Pattern.Title+" takes no messages, so it needs no set for a class")
	}
	var chosen []packs.Pack
	for _, id := range in.Packs {
		p, err := answer.FindPack(ctx, s.store, "query.packs", id)
		if err != nil {
			return nil, err
		}
		chosen = append(chosen, p)
	}
	page, err := s.page(ctx, in.Page, r.Sheet.WidthMM, r.Sheet.HeightMM)
	if err != nil {
		return nil, err
	}
	title := b.Name + ", " + r.Pattern.Title
	var set []one
	var leaves []prints.Leaf
	for i := range in.Count {
		p := chosen[i%len(chosen)]
		t := one{no: i + 1, pack: p}
		t.written, t.entries = q.FillFrom(places, b.Current().Written, p, uint64(in.Seed)*1000+uint64(i))
		o := prints.Order{Title: fmt.Sprintf("%d of %d: %s. %s", t.no, in.Count, p.Title, title), Outline: r.Sheet.Outline(), Down: "back", Front: true, Back: true, Page: page, Inches: in.Units == "in", BandMM: in.BandMM}
		o.Guides = guidesOf(r, 0)
		faults, err := s.write(ctx, &o, r, t.written, toys.Content(in.Write))
		if err != nil {
			return nil, err
		}
		for _, f := range faults {
			t.long = append(t.long, f.Says)
		}
		for _, p := range places {
			if q.Takes(p) == toys.TakesMessages {
				t.under = append(t.under, cmp.Or(t.written[p.Under].Text, fmt.Sprint(len(t.under)+1)))
			}
		}
		set = append(set, t)
		one, err := prints.Lay(o)
		if err != nil {
			return nil, answer.AsProblem(err, "query.")
		}
		leaves = append(leaves, one...)
	}
	leaves = append(leaves, leaderPages(title, set, page, toys.Content(in.Write), say.Units(in.Units))...)
	var out bytes.Buffer
	if err := prints.PDF(&out, title+", set for a class", leaves); err != nil {
		return nil, answer.AsProblem(err, "")
	}
	return &answer.File{Type: "application/pdf", Disposition: fmt.Sprintf(`inline; filename="tussock-class-%d.pdf"`, b.ID), Body: out.Bytes()}, nil
}

// leaderPages are the list for the leader: what each toy holds, answers, and how much floor is
// needed.
func leaderPages(title string, set []one, page prints.Page, how toys.Content, u say.Units) []prints.Leaf {
	text := prints.NewText(page, "For the leader: "+title)
	many := "One toy"
	if len(set) > 1 {
		many = fmt.Sprintf("%d toys", len(set))
	}
	text.Line(many+". Print both faces of a page, turned over the long edge; crosses in the corners lie on one another.", 3.2)
	text.Line("Anybody may skip a message. Nothing is written about real people.", 3.2)
	floors := map[string]bool{}
	for _, t := range set {
		if t.pack.Space != "" && !floors[t.pack.Space] {
			floors[t.pack.Space] = true
			text.Line(t.pack.Title+": "+say.In(u, t.pack.Space), 3.2)
		}
	}
	if how == toys.Blank {
		return text.Pages()
	}
	for _, t := range set {
		text.Gap(1.5)
		head := fmt.Sprintf("%d  %s, ages %d to %d", t.no, t.pack.Title, t.pack.FromAge, t.pack.ToAge)
		if !t.pack.Read {
			head += ". Not read by a leader yet"
		}
		text.Line(head, 3.4)
		var all []string
		for i, e := range t.entries {
			said := t.under[i] + " " + e.Text
			if e.Answer != "" {
				said += " (" + e.Answer + ")"
			}
			all = append(all, said)
		}
		text.Line(strings.Join(all, "  ·  "), 2.8)
		for _, says := range t.long {
			text.Line(says, 2.8)
		}
	}
	return text.Pages()
}
