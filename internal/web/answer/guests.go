package answer

import (
	"fmt"
	"math"
	"net/http"
	"strconv"

	"github.com/danielgtaylor/huma/v2"

	"tussock/internal/turn"
)

// hereOnly marks what belongs to the machine where Tussock runs.
const hereOnly = "here only"

// HereOnly marks operations that no guest is answered.
func HereOnly(op huma.Operation) huma.Operation {
	op.Metadata = map[string]any{hereOnly: true}
	return op
}

// IsHereOnly tells whether no guest is answered.
func IsHereOnly(op *huma.Operation) bool { return op.Metadata[hereOnly] == true }

// long marks what takes long and gives way to what does not.
const long = "long"

// Long marks operations that are worked out piece by piece, and give way to all others
// before each.
func Long(op huma.Operation) huma.Operation {
	op.Metadata = map[string]any{long: true}
	return op
}

// InTurn lets long operations give way to the others.
func InTurn(p *turn.Pool) func(huma.Context, func(huma.Context)) {
	return func(c huma.Context, next func(huma.Context)) {
		if c.Operation().Metadata[long] == true {
			next(huma.WithContext(c, p.Behind(c.Context())))
			return
		}
		defer p.Short()()
		next(c)
	}
}

// Finite refuses numbers in an address that are none, such as NaN and Inf: they would pass
// every comparison that follows.
func Finite(api huma.API) func(huma.Context, func(huma.Context)) {
	return func(c huma.Context, next func(huma.Context)) {
		for _, p := range c.Operation().Parameters {
			if p.In != "query" || p.Schema == nil || p.Schema.Type != huma.TypeNumber {
				continue
			}
			text := c.Query(p.Name)
			if v, err := strconv.ParseFloat(text, 64); err == nil && (math.IsNaN(v) || math.IsInf(v, 0)) {
				// Who has gone away meanwhile need not be told.
				_ = huma.WriteErr(api, c, http.StatusUnprocessableEntity, "the address holds a number that is none",
					&huma.ErrorDetail{Location: "query." + p.Name, Value: text, Message: fmt.Sprintf("%s is %s; give an ordinary number", p.Name, text)})
				return
			}
		}
		next(c)
	}
}
