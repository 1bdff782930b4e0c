package writing

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"tussock/internal/motion"
	"tussock/internal/pictures"
	"tussock/internal/web/answer"
)

func (s *Routes) imageRoutes(api huma.API) {
	huma.Register(api, huma.Operation{OperationID: "add-image", Method: http.MethodPost, Path: "/api/v1/images", Summary: "Keep a picture of one's own, PNG or SVG", MaxBodyBytes: pictures.MostBytes + answer.SmallBody}, s.addImage)
	huma.Register(api, huma.Operation{OperationID: "get-image", Method: http.MethodGet, Path: "/api/v1/images/{name}", Summary: "A picture of one's own, PNG"}, s.getImage)
}

type addImageInput struct {
	RawBody []byte
}

// ImageView is a picture that is kept.
type ImageView struct {
	Name string `json:"name" doc:"to be written as the picture of a place"`
}

func (s *Routes) addImage(ctx context.Context, in *addImageInput) (*answer.Body[ImageView], error) {
	name, body, err := pictures.Clean(in.RawBody)
	if err != nil {
		return nil, answer.AsProblem(err, "body")
	}
	if err := s.store.AddImage(ctx, name, body); err != nil {
		return nil, answer.AsProblem(err, "")
	}
	return answer.OK(ImageView{motion.OwnPicture(name)})
}

type imagePath struct {
	Name string `path:"name" pattern:"^[0-9a-f]{16,64}$"`
}

func (s *Routes) getImage(ctx context.Context, in *imagePath) (*answer.File, error) {
	body, err := s.store.Image(ctx, in.Name)
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	return &answer.File{Type: "image/png", Disposition: "inline", Body: body}, nil
}
