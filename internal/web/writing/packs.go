package writing

import (
	"context"
	"encoding/json"
	"fmt"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"tussock/internal/packs"
	"tussock/internal/web/answer"
)

// packBody bounds a pack that is sent, bytes: all its messages as long as can be.
const packBody = 256 << 10

func (s *Routes) packRoutes(api huma.API) {
	op := func(id, method, path, summary string) huma.Operation {
		return huma.Operation{OperationID: id, Method: method, Path: "/api/v1/packs" + path, Summary: summary, MaxBodyBytes: packBody}
	}
	huma.Register(api, op("list-packs", http.MethodGet, "", "Packs of things to write: those that ship, and one's own"), s.listPacks)
	huma.Register(api, op("get-pack", http.MethodGet, "/{id}", "A pack"), s.getPack)
	huma.Register(api, op("add-pack", http.MethodPost, "", "Keep a pack of one's own: from a file, a table or a pasted list"), s.addPack)
	huma.Register(api, op("change-pack", http.MethodPut, "/{id}", "Change a pack of one's own, or say that a leader approves of it"), s.changePack)
	huma.Register(api, op("bin-pack", http.MethodDelete, "/{id}", "Move a pack of one's own to the bin"), s.binPack)
	huma.Register(api, op("restore-pack", http.MethodPost, "/{id}/restore", "Take a pack out of the bin"), s.restorePack)
	huma.Register(api, op("pack-file", http.MethodGet, "/{id}/file", "A pack as a file, JSON or CSV"), s.packFile)
}

// PackCard is a pack in a list.
type PackCard struct {
	ID       string `json:"id"`
	Title    string `json:"title"`
	Kind     string `json:"kind"`
	FromAge  int    `json:"from_age"`
	ToAge    int    `json:"to_age"`
	Language string `json:"language" doc:"code"`
	Speaks   string `json:"speaks" doc:"the language in itself"`
	Words    int    `json:"words"`
	Entries  int    `json:"entries"`
	Space    string `json:"space" doc:"how much floor it needs; empty for none"`
	Read     bool   `json:"read" doc:"a leader has read it"`
	Ships    bool   `json:"ships"`
}

// PackList is all there are, with what they may be.
type PackList struct {
	Packs     []PackCard        `json:"packs"`
	Kinds     []string          `json:"kinds"`
	Languages map[string]string `json:"languages"`
}

func (s *Routes) listPacks(ctx context.Context, _ *struct{}) (*answer.Body[PackList], error) {
	all, err := answer.Packs(ctx, s.store)
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	out := PackList{Packs: []PackCard{}, Kinds: packs.Kinds, Languages: packs.Languages}
	for _, p := range all {
		out.Packs = append(out.Packs, PackCard{p.ID, p.Title, p.Kind, p.FromAge, p.ToAge, p.Language, packs.Languages[p.Language], len(p.Words), len(p.Entries), p.Space, p.Read, p.Ships})
	}
	return answer.OK(out)
}

// PackPath names a pack.
type PackPath struct {
	ID string `path:"id" maxLength:"60"`
}

// PackView is a pack as it is looked at and changed.
type PackView struct {
	packs.Pack
	List *string `json:"list,omitempty" doc:"its messages as a list, one in each line, an answer after the last = or a tab; sent, it counts instead of the entries"`
}

func viewed(p packs.Pack) *answer.Body[PackView] {
	list := p.List()
	return &answer.Body[PackView]{Body: PackView{p, &list}}
}

func (s *Routes) getPack(ctx context.Context, in *PackPath) (*answer.Body[PackView], error) {
	p, err := answer.FindPack(ctx, s.store, "path.id", in.ID)
	if err != nil {
		return nil, err
	}
	return viewed(p), nil
}

type addPackInput struct {
	Body struct {
		Text  string `json:"text" doc:"the file, the table, or the list, a message in each line"`
		Title string `json:"title,omitempty" maxLength:"80" doc:"instead of the one in the file"`
	}
}

func (s *Routes) addPack(ctx context.Context, in *addPackInput) (*answer.Body[PackView], error) {
	p, err := packs.Parse(in.Body.Text)
	if err != nil {
		return nil, answer.AsProblem(err, "body.")
	}
	if in.Body.Title != "" {
		p.Title = in.Body.Title
		if p, err = p.Clean(); err != nil {
			return nil, answer.AsProblem(err, "body.")
		}
	}
	body, err := json.Marshal(p)
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	id, err := s.store.AddPack(ctx, string(body))
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	return s.own(ctx, id)
}

func (s *Routes) own(ctx context.Context, id int64) (*answer.Body[PackView], error) {
	row, err := s.store.OwnPack(ctx, id)
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	p, err := answer.OwnPack(row)
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	return viewed(p), nil
}

// mine is the number of a pack of one's own; those that ship cannot be changed.
func mine(id string) (int64, error) {
	n, own := answer.OwnPackID(id)
	if !own {
		return 0, answer.Refuse("path.id", id, "this pack ships with the program: make one of your own from its file, and change that")
	}
	return n, nil
}

type changePackInput struct {
	PackPath
	Body PackView
}

func (s *Routes) changePack(ctx context.Context, in *changePackInput) (*answer.Body[PackView], error) {
	id, err := mine(in.ID)
	if err != nil {
		return nil, err
	}
	if in.Body.List != nil {
		in.Body.Entries = packs.Listed(*in.Body.List)
	}
	p, err := in.Body.Clean()
	if err != nil {
		return nil, answer.AsProblem(err, "body.")
	}
	read := p.Read
	p.ID, p.Read, p.Ships = "", false, false
	body, err := json.Marshal(p)
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	if err := s.store.ChangePack(ctx, id, string(body), read); err != nil {
		return nil, answer.AsProblem(err, "")
	}
	return s.own(ctx, id)
}

func (s *Routes) binPack(ctx context.Context, in *PackPath) (*struct{}, error) {
	id, err := mine(in.ID)
	if err != nil {
		return nil, err
	}
	return nil, answer.AsProblem(s.store.BinPack(ctx, id), "")
}

func (s *Routes) restorePack(ctx context.Context, in *PackPath) (*answer.Body[PackView], error) {
	id, err := mine(in.ID)
	if err != nil {
		return nil, err
	}
	if err := s.store.RestorePack(ctx, id); err != nil {
		return nil, answer.AsProblem(err, "")
	}
	return s.own(ctx, id)
}

type packFileInput struct {
	PackPath
	Format string `query:"format" enum:"json,csv" default:"json"`
}

func (s *Routes) packFile(ctx context.Context, in *packFileInput) (*answer.File, error) {
	p, err := answer.FindPack(ctx, s.store, "path.id", in.ID)
	if err != nil {
		return nil, err
	}
	write, kind := p.JSON, "application/json"
	if in.Format == "csv" {
		write, kind = p.CSV, "text/csv; charset=utf-8"
	}
	body, err := write()
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	return &answer.File{Type: kind, Disposition: fmt.Sprintf(`attachment; filename="tussock-pack-%s.%s"`, p.ID, in.Format), Body: body}, nil
}
