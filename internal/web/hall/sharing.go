package hall

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"
	"github.com/gin-gonic/gin"

	"tussock/internal/store"
	"tussock/internal/web/answer"
)

// Routes answers for the other devices of the hall.
type Routes struct {
	store   *store.Store
	hub     *hub
	sharing *Sharing // nil when only this machine is answered
}

// New makes the area; sharing is nil when only this machine is answered.
func New(s *store.Store, sharing *Sharing) *Routes { return &Routes{s, newHub(), sharing} }

// Register adds its routes.
func (s *Routes) Register(api huma.API, router *gin.Engine) {
	s.sharingRoutes(api)
	router.GET("/api/v1/builds/:id/progress", s.progress)
}

// Close ends all streams.
func (s *Routes) Close() { s.hub.close() }

// SharingView is how other devices come in.
type SharingView struct {
	On   bool     `json:"on"`
	URL  string   `json:"url,omitempty"`
	Code string   `json:"code,omitempty" doc:"lets one device in; then there is another"`
	QR   [][]bool `json:"qr,omitempty" doc:"the join address, dark modules true"`
}

type atInput struct {
	answer.PathID
	Body At
}

func (s *Routes) sharingRoutes(api huma.API) {
	huma.Register(api, huma.Operation{OperationID: "sharing", Method: http.MethodGet, Path: "/api/v1/sharing", Summary: "How other devices come in"}, s.sharingNow)
	huma.Register(api, huma.Operation{OperationID: "tell-step", Method: http.MethodPost, Path: "/api/v1/builds/{id}/at", Summary: "Tell other devices where this one is", MaxBodyBytes: answer.SmallBody}, s.tellStep)
}

func (s *Routes) sharingNow(context.Context, *struct{}) (*answer.Body[SharingView], error) {
	if s.sharing == nil {
		return answer.OK(SharingView{})
	}
	qr, err := s.sharing.QR()
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	return answer.OK(SharingView{true, s.sharing.URL, s.sharing.Code(), qr})
}

func (s *Routes) tellStep(ctx context.Context, in *atInput) (*struct{}, error) {
	if _, err := s.store.Build(ctx, in.ID); err != nil {
		return nil, answer.AsProblem(err, "")
	}
	if in.Body.Step < 1 || in.Body.Step > 400 {
		return nil, answer.Refuse("body.step", in.Body.Step, "step must be 1 to 400")
	}
	s.hub.tell(in.ID, in.Body)
	return nil, nil
}
