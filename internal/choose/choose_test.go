package choose_test

import (
	"slices"
	"strings"
	"testing"

	"tussock/internal/choose"
	"tussock/internal/sheet"
	"tussock/internal/shelf"
)

func toys(t *testing.T) []choose.Toy {
	t.Helper()
	all, err := shelf.All()
	if err != nil {
		t.Fatal(err)
	}
	var out []choose.Toy
	for _, p := range all {
		toy, err := choose.Of(p)
		if err != nil {
			t.Fatal(err)
		}
		out = append(out, toy)
	}
	return out
}

// What each filter leaves out is what does not keep to it, whatever the others do; what is
// left keeps to all; and all filters together leave out no more than each alone.
func TestSift(t *testing.T) {
	all := toys(t)
	paper := func(w, h float64) func(string) bool {
		s, err := sheet.New(w, h, 80, 0.1)
		if err != nil {
			t.Fatal(err)
		}
		return func(id string) bool {
			p, _ := shelf.Find(id)
			_, does := choose.From(p, s)
			return does
		}
	}
	play := false
	for _, w := range []choose.Wish{
		{}, {Minutes: 10}, {Layers: 4}, {Bare: true}, {Bare: true, Have: []choose.Tool{choose.Scissors}}, {Audience: choose.Child}, {Audience: choose.Class},
		{Moves: "hop"}, {Show: &play}, {Paper: paper(150, 150)}, {Paper: paper(210, 297)}, {Minutes: 12, Layers: 8, Audience: choose.Learner, Moves: "fly", Show: &play, Bare: true, Paper: paper(210, 297)},
	} {
		kept, out := choose.Sift(all, w)
		gone := map[string]bool{}
		for _, l := range out {
			if l.Says == "" {
				t.Errorf("%s says nothing", l.Filter)
			}
			for _, id := range l.Toys {
				gone[id] = true
			}
		}
		if len(kept)+len(gone) != len(all) {
			t.Errorf("%+v: %d kept and %d gone of %d", w, len(kept), len(gone), len(all))
		}
		for i, k := range kept {
			if gone[k.ID] || w.Minutes > 0 && k.Minutes > w.Minutes || w.Layers > 0 && k.Layers > w.Layers || w.Moves != "" && k.Moves != w.Moves ||
				w.Audience != "" && !slices.Contains(k.For, w.Audience) || w.Bare && len(w.Have) == 0 && len(k.Needs) > 0 {
				t.Errorf("%+v keeps %+v", w, k)
			}
			if i > 0 && k.Score < kept[i-1].Score {
				t.Errorf("%s stands behind %s, which is harder", k.ID, kept[i-1].ID)
			}
		}
	}
	if kept, _ := choose.Sift(all, choose.Wish{Bare: true}); slices.ContainsFunc(kept, func(k choose.Toy) bool { return k.ID == "spadefoot" }) {
		t.Error("a toy that is cut needs no scissors")
	}
	if kept, _ := choose.Sift(all, choose.Wish{Audience: choose.Child}); len(kept) == 0 || kept[0].Layers > 4 || kept[0].Level != choose.Easy {
		t.Errorf("for a young child: %+v", kept)
	}
	for _, w := range []choose.Wish{{Minutes: -1}, {Layers: 101}, {Audience: "giant"}, {Have: []choose.Tool{"chisel"}}} {
		if w.Check() == nil {
			t.Errorf("%+v was taken", w)
		}
	}
}

// Difficulty is counted: a step, a layer, a step that must be exact and a narrower flap
// each make it harder, never easier; the shelf has easy and hard ones, and siblings stand
// on either side.
func TestDifficulty(t *testing.T) {
	all := toys(t)
	levels := map[choose.Level]int{}
	for _, x := range all {
		levels[x.Level]++
		// A strip that becomes a ring is creased in one layer and has no flaps.
		strip := x.Family == "rings"
		if x.Steps < 5 || x.Layers < 2 != strip || x.LeastMM <= 0 != strip || x.Family == "" || !strings.Contains(x.Why(), "step") {
			t.Errorf("%+v: %s", x, x.Why())
		}
		easier, harder := choose.Siblings(x, all)
		if easier != nil && (easier.Score >= x.Score || easier.Family != x.Family) || harder != nil && (harder.Score <= x.Score || harder.Family != x.Family) {
			t.Errorf("%s stands between %+v and %+v", x.ID, easier, harder)
		}
	}
	for _, l := range []choose.Level{choose.Easy, choose.Moderate, choose.Demanding, choose.Hard} {
		if levels[l] == 0 {
			t.Errorf("nothing on the shelf is %s", l)
		}
	}
}

// The best sheet in a drawer suits the way the toy moves, and needs no cut where one that
// needs none is there.
func TestBestSheet(t *testing.T) {
	p, _ := shelf.Find("natterjack")
	q, _ := shelf.Find("curlew")
	make := func(w, h, gsm, mm float64, none bool) choose.Paper {
		s, err := sheet.New(w, h, gsm, mm)
		if err != nil {
			t.Fatal(err)
		}
		return choose.Paper{Sheet: s, Class: sheet.Ordinary, None: none}
	}
	bands := sheet.Bands{Weight: sheet.Band{GoodMin: 60, GoodMax: 100, FairMin: 40, FairMax: 160}, Stiffness: sheet.Band{GoodMin: 0, GoodMax: 1e3, FairMin: 0, FairMax: 1e3}}
	drawer := []choose.Paper{make(210, 297, 80, 0.1, false), make(150, 150, 80, 0.1, true), make(150, 150, 80, 0.1, false), make(150, 150, 30, 0.05, false)}
	if h, found := choose.BestSheet(p, bands, 8, drawer); !found || h.Paper != 2 || h.Cut || h.Turned {
		t.Errorf("%+v", h)
	}
	if h, found := choose.BestSheet(p, bands, 8, drawer[:2]); !found || h.Paper != 0 || !h.Cut || h.WidthMM != 210 {
		t.Errorf("from an office sheet: %+v", h)
	}
	if h, found := choose.BestSheet(q, bands, 4, []choose.Paper{make(420, 300, 80, 0.1, false)}); !found || !h.Turned || h.Cut || h.WidthMM != 300 {
		t.Errorf("lying: %+v", h)
	}
	if _, found := choose.BestSheet(p, bands, 8, []choose.Paper{make(20, 20, 80, 0.1, false), make(150, 150, 80, 0.1, true)}); found {
		t.Error("a scrap was found to do")
	}
}
