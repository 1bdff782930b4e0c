package web

// answer is a response with a body.
type answer[T any] struct{ Body T }

func ok[T any](v T) (*answer[T], error) { return &answer[T]{v}, nil }

type fileAnswer struct {
	Type        string `header:"Content-Type"`
	Disposition string `header:"Content-Disposition"`
	Body        []byte
}
