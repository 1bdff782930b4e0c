package answer

// Body is a response with a body.
type Body[T any] struct{ Body T }

// OK answers with a body.
func OK[T any](v T) (*Body[T], error) { return &Body[T]{v}, nil }

// File is an answer that is a file.
type File struct {
	Type        string `header:"Content-Type"`
	Disposition string `header:"Content-Disposition"`
	Body        []byte
}

// SmallBody bounds what a request may send that is no file, bytes.
const SmallBody = 48 << 10
