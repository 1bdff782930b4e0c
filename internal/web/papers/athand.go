package papers

import (
	"context"
	"encoding/json"
	"net/http"
	"sync"

	"github.com/danielgtaylor/huma/v2"

	"tussock/internal/choose"
	"tussock/internal/sheet"
	"tussock/internal/shelf"
	"tussock/internal/ways"
	"tussock/internal/web/answer"
)

// AtHandView is the best sheet that the drawer has for a pattern.
type AtHandView struct {
	Pattern  string  `json:"pattern"`
	PaperID  int64   `json:"paper_id"`
	Paper    string  `json:"paper"`
	WidthMM  float64 `json:"width_mm" doc:"as it is folded"`
	HeightMM float64 `json:"height_mm"`
	Size     string  `json:"size"`
	Turned   bool    `json:"turned"`
	Cut      bool    `json:"cut" doc:"it is cut from the paper first"`
	Verdict  string  `json:"verdict" enum:"good,fair,poor" doc:"of the paper, a rule of thumb"`
}

// atHand keeps the last answer: it holds while the drawer stays as it is.
type atHand struct {
	mu     sync.Mutex
	drawer string
	found  []AtHandView
}

func (s *Routes) atHandRoutes(api huma.API) {
	huma.Register(api, answer.Long(huma.Operation{OperationID: "best-sheets", Method: http.MethodGet, Path: "/api/v1/best-sheets", Summary: "For each pattern the best sheet in the drawer"}), s.bestSheets)
}

func (s *Routes) bestSheets(ctx context.Context, _ *struct{}) (*answer.Body[[]AtHandView], error) {
	papers, err := s.store.Papers(ctx, false)
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	key, err := json.Marshal(papers)
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	all, err := shelf.All()
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	known, err := stacks()
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	s.hand.mu.Lock()
	defer s.hand.mu.Unlock()
	if s.hand.drawer == string(key) {
		return answer.OK(s.hand.found)
	}
	var drawer []choose.Paper
	for _, p := range papers {
		sh, err := p.Sheet.Plain()
		drawer = append(drawer, choose.Paper{Sheet: sh, Class: sheet.Class(p.Stiffness), None: err != nil || p.Left != nil && *p.Left == 0})
	}
	out := []AtHandView{}
	for _, p := range all {
		layers := 0
		for _, k := range known[p.Moves] {
			if k.title == p.Title {
				layers = k.layers
			}
		}
		h, found := choose.BestSheet(p, ways.For(p).Paper, layers, drawer)
		if !found {
			continue
		}
		q := papers[h.Paper]
		out = append(out, AtHandView{p.ID, q.ID, q.Name, h.WidthMM, h.HeightMM, sheet.NameOf(h.WidthMM, h.HeightMM), h.Turned, h.Cut, string(h.Suits.Verdict)})
	}
	s.hand.drawer, s.hand.found = string(key), out
	return answer.OK(out)
}
