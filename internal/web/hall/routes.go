package hall

import (
	"context"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/gin-gonic/gin"

	"tussock/internal/bench"
	"tussock/internal/store"
	"tussock/internal/web/answer"
)

// Routes answers for the other devices of the hall.
type Routes struct {
	store   *store.Store
	hub     *hub
	sharing *Sharing // nil when only this machine is answered
}

// New makes the area; sharing is nil when only this machine is answered. All pages are
// told of what changes in the store.
func New(s *store.Store, sharing *Sharing) *Routes {
	r := &Routes{s, newHub(), sharing}
	if s != nil {
		s.Tell(r.hub.changed)
	}
	return r
}

// Register adds its routes.
func (s *Routes) Register(api huma.API, router *gin.Engine) {
	s.sharingRoutes(api)
	router.GET("/api/v1/events", s.events)
}

// Close ends all streams.
func (s *Routes) Close() { s.hub.close() }

// SharingView is how other devices come in, and those that are in.
type SharingView struct {
	On      bool         `json:"on"`
	URL     string       `json:"url,omitempty"`
	Code    string       `json:"code,omitempty" doc:"lets one device in; then there is another"`
	QR      [][]bool     `json:"qr,omitempty" doc:"the join address, dark modules true"`
	Devices []DeviceView `json:"devices"`
}

// DeviceView is a device of the hall that is in.
type DeviceView struct {
	ID       int64     `json:"id"`
	Name     string    `json:"name"`
	Address  string    `json:"address"`
	JoinedAt time.Time `json:"joined_at"`
	SeenAt   time.Time `json:"seen_at"`
}

// MeView is who asks.
type MeView struct {
	Guest bool   `json:"guest" doc:"a device of the hall, not the machine where Tussock runs"`
	Name  string `json:"name,omitempty" doc:"of the device"`
}

type atInput struct {
	answer.PathID
	Body At
}

type nameInput struct {
	Body struct {
		Name string `json:"name" maxLength:"80"`
	}
}

func (s *Routes) sharingRoutes(api huma.API) {
	op := func(id, method, path, summary string) huma.Operation {
		return huma.Operation{OperationID: id, Method: method, Path: "/api/v1" + path, Summary: summary, MaxBodyBytes: answer.SmallBody}
	}
	huma.Register(api, answer.HereOnly(op("sharing", http.MethodGet, "/sharing", "How other devices come in, and those that are in")), s.sharingNow)
	huma.Register(api, answer.HereOnly(op("put-out", http.MethodDelete, "/devices/{id}", "Let a device in no longer")), s.putOut)
	huma.Register(api, op("who-am-i", http.MethodGet, "/me", "Who asks"), s.me)
	huma.Register(api, op("call-me", http.MethodPut, "/me", "Name the device that asks"), s.callMe)
	huma.Register(api, op("tell-step", http.MethodPost, "/builds/{id}/at", "Tell other devices where this one is"), s.tellStep)
	// The stream itself is no operation; what it tells is described all the same.
	api.OpenAPI().Components.Schemas.Schema(eventType, true, "")
}

func (s *Routes) sharingNow(context.Context, *struct{}) (*answer.Body[SharingView], error) {
	if s.sharing == nil {
		return answer.OK(SharingView{Devices: []DeviceView{}})
	}
	qr, err := s.sharing.QR()
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	v := SharingView{true, s.sharing.URL, s.sharing.Code(), qr, []DeviceView{}}
	for _, d := range s.sharing.Devices() {
		v.Devices = append(v.Devices, DeviceView(d))
	}
	return answer.OK(v)
}

func (s *Routes) putOut(ctx context.Context, in *answer.PathID) (*answer.Body[SharingView], error) {
	if s.sharing == nil {
		return nil, answer.AsProblem(store.ErrNotFound, "")
	}
	if err := s.sharing.PutOut(ctx, in.ID); err != nil {
		return nil, answer.AsProblem(err, "")
	}
	return s.sharingNow(ctx, nil)
}

// stillIn tells whether who listens may: this machine, or a guest that was not put out.
func (s *Routes) stillIn(ctx context.Context) bool {
	d := GuestOf(ctx)
	return d == nil || s.sharing != nil && s.sharing.change(d.ID, func(string, *store.Device) error { return nil }) == nil
}

func (s *Routes) me(ctx context.Context, _ *struct{}) (*answer.Body[MeView], error) {
	if d := GuestOf(ctx); d != nil {
		return answer.OK(MeView{true, d.Name})
	}
	return answer.OK(MeView{})
}

func (s *Routes) callMe(ctx context.Context, in *nameInput) (*answer.Body[MeView], error) {
	d := GuestOf(ctx)
	if d == nil || s.sharing == nil {
		return nil, huma.Error409Conflict("this is the machine where Tussock runs; only devices of the hall have names")
	}
	name, err := bench.CleanName("name", in.Body.Name)
	if err != nil {
		return nil, answer.AsProblem(err, "body.")
	}
	if err := s.sharing.Rename(ctx, d.ID, name); err != nil {
		return nil, answer.AsProblem(err, "")
	}
	return answer.OK(MeView{true, name})
}

func (s *Routes) tellStep(ctx context.Context, in *atInput) (*struct{}, error) {
	is, err := s.store.IsBuild(ctx, in.ID)
	if err == nil && !is {
		err = store.ErrNotFound
	}
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	if in.Body.Step < 1 || in.Body.Step > 400 {
		return nil, answer.Refuse("body.step", in.Body.Step, "step must be 1 to 400")
	}
	s.hub.tell(in.ID, in.Body)
	return nil, nil
}
