package web

import (
	"context"
	"net/http"
	"tussock/internal/store"

	"github.com/danielgtaylor/huma/v2"
	"github.com/gin-gonic/gin"
)

// hallArea answers for the other devices of the hall.
type hallArea struct {
	store   *store.Store
	hub     *hub
	sharing *Sharing // nil when only this machine is answered
}

func newHall(s *store.Store, sharing *Sharing) *hallArea { return &hallArea{s, newHub(), sharing} }

// register adds its routes.
func (s *hallArea) register(api huma.API, router *gin.Engine) {
	s.sharingRoutes(api)
	router.GET("/api/v1/builds/:id/progress", s.progress)
}

// close ends all streams.
func (s *hallArea) close() { s.hub.close() }

// SharingView is how other devices come in.
type SharingView struct {
	On   bool     `json:"on"`
	URL  string   `json:"url,omitempty"`
	Code string   `json:"code,omitempty" doc:"lets one device in; then there is another"`
	QR   [][]bool `json:"qr,omitempty" doc:"the join address, dark modules true"`
}

type atInput struct {
	PathID
	Body At
}

func (s *hallArea) sharingRoutes(api huma.API) {
	huma.Register(api, huma.Operation{OperationID: "sharing", Method: http.MethodGet, Path: "/api/v1/sharing", Summary: "How other devices come in"}, s.sharingNow)
	huma.Register(api, huma.Operation{OperationID: "tell-step", Method: http.MethodPost, Path: "/api/v1/builds/{id}/at", Summary: "Tell other devices where this one is", MaxBodyBytes: smallBody}, s.tellStep)
}

func (s *hallArea) sharingNow(context.Context, *struct{}) (*answer[SharingView], error) {
	if s.sharing == nil {
		return ok(SharingView{})
	}
	qr, err := s.sharing.QR()
	if err != nil {
		return nil, asProblem(err, "")
	}
	return ok(SharingView{true, s.sharing.URL, s.sharing.Code(), qr})
}

func (s *hallArea) tellStep(ctx context.Context, in *atInput) (*struct{}, error) {
	if _, err := s.store.Build(ctx, in.ID); err != nil {
		return nil, asProblem(err, "")
	}
	if in.Body.Step < 1 || in.Body.Step > 400 {
		return nil, refuse("body.step", in.Body.Step, "step must be 1 to 400")
	}
	s.hub.tell(in.ID, in.Body)
	return nil, nil
}
