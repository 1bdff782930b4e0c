// Package web serves Tussock: the API under /api/v1, described by a generated
// OpenAPI document, and the embedded page. It turns requests into calls of the
// core and core errors into one problem shape; it computes nothing itself.
package web

import (
	"context"
	"errors"
	"io/fs"
	"net/http"
	"reflect"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humagin"
	"github.com/gin-gonic/gin"
	"github.com/klauspost/compress/gzhttp"

	"tussock/internal/store"
	"tussock/internal/turn"
	"tussock/internal/ways"
	"tussock/internal/web/answer"
	"tussock/internal/web/builds"
	"tussock/internal/web/files"
	"tussock/internal/web/folding"
	"tussock/internal/web/hall"
	"tussock/internal/web/motions"
	"tussock/internal/web/papers"
	"tussock/internal/web/writing"
)

// Version is the API's version, kept in the generated description.
const Version = "1.0.0"

// areas are all that answers, each for its own part.
type areas struct {
	folding *folding.Routes
	papers  *papers.Routes
	motion  *motions.Routes
	bench   *builds.Routes
	files   *files.Routes
	hall    *hall.Routes
	writing *writing.Routes
	turns   *turn.Pool // where what takes long gives way
}

// app is the handler with what must be ended before it.
type app struct {
	http.Handler
	end  func()
	warm func(context.Context) error
}

// New makes the handler, for this machine alone. page may be nil when the front end is
// not built.
func New(s *store.Store, page fs.FS) (http.Handler, error) { return NewShared(s, page, nil) }

// NewShared is New for other devices of the network as well, when sharing is not nil.
func NewShared(s *store.Store, page fs.FS, sharing *hall.Sharing) (http.Handler, error) {
	gin.SetMode(gin.ReleaseMode)
	router := gin.New()
	router.HandleMethodNotAllowed = true
	router.Use(gin.Recovery(), headers)
	all, err := newAreas(s, sharing)
	if err != nil {
		return nil, err
	}
	all.register(router)
	serveFiles(router, page)
	compressed, err := gzhttp.NewWrapper(gzhttp.MinSize(1024))
	if err != nil {
		return nil, err
	}
	return app{compressed(hall.Named(hall.Guarded(http.NewCrossOriginProtection().Handler(router), sharing))), all.hall.Close, all.warm}, nil
}

// Warm makes a handler of New ready for the first who ask: what all of them look at is
// worked out already.
func Warm(ctx context.Context, h http.Handler) error {
	if a, ok := h.(app); ok {
		return a.warm(ctx)
	}
	return nil
}

func (a *areas) warm(ctx context.Context) error {
	return errors.Join(a.bench.Warm(ctx), a.folding.Warm(), a.papers.Warm(), a.motion.Warm(a.turns.Behind(ctx)))
}

// Describe is the OpenAPI description in YAML.
func Describe() ([]byte, error) {
	gin.SetMode(gin.ReleaseMode)
	all, err := newAreas(nil, nil)
	if err != nil {
		return nil, err
	}
	return all.register(gin.New()).OpenAPI().YAML()
}

func newAreas(s *store.Store, sharing *hall.Sharing) (*areas, error) {
	a := &areas{papers: papers.New(s), hall: hall.New(s, sharing), writing: writing.New(s), turns: turn.NewPool()}
	var err error
	a.folding = folding.New(s)
	if a.motion, err = motions.New(s); err != nil {
		return nil, err
	}
	a.bench = builds.New(s, a.folding, a.papers, a.motion.Forget)
	a.files = files.New(s, a.bench, a.motion.Forget)
	return a, nil
}

func (a *areas) register(router *gin.Engine) huma.API {
	huma.DefaultArrayNullable = false
	config := huma.DefaultConfig("Tussock", Version)
	config.DocsPath = ""
	config.OpenAPIPath = "/api/v1/openapi"
	config.SchemasPath = "/api/v1/schemas"
	config.CreateHooks = nil
	json := config.Formats["application/json"]
	json.Marshal, json.Unmarshal = answer.WriteJSON, answer.ReadJSON
	config.Formats = map[string]huma.Format{"application/json": json, "json": json}
	api := humagin.New(router, config)
	api.UseMiddleware(hall.Refuse(api), answer.Finite(api), answer.InTurn(a.turns))
	a.folding.Register(api)
	a.papers.Register(api)
	a.motion.Register(api)
	a.bench.Register(api)
	a.files.Register(api)
	a.hall.Register(api, router)
	a.writing.Register(api)
	// What drawings hold is described although no answer names it.
	for _, w := range ways.All() {
		for _, d := range w.Data {
			api.OpenAPI().Components.Schemas.Schema(reflect.TypeOf(d), true, "")
		}
	}
	describe(api)
	return api
}

// headers are set on every answer: nothing from elsewhere, no inline script.
func headers(c *gin.Context) {
	h := c.Writer.Header()
	h.Set("Content-Security-Policy", "default-src 'self'; script-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; font-src 'self'; object-src 'none'; base-uri 'none'; frame-ancestors 'none'; form-action 'self'")
	h.Set("X-Content-Type-Options", "nosniff")
	h.Set("Referrer-Policy", "no-referrer")
	h.Set("Cross-Origin-Opener-Policy", "same-origin")
	if strings.HasPrefix(c.Request.URL.Path, "/api/") {
		h.Set("Cache-Control", "no-store")
	}
	c.Next()
}

func serveFiles(router *gin.Engine, page fs.FS) {
	router.NoRoute(func(c *gin.Context) {
		path := strings.TrimPrefix(c.Request.URL.Path, "/")
		switch {
		case strings.HasPrefix(path, "api/"):
			answer.WriteProblem(c.Writer, http.StatusNotFound, "there is nothing at "+c.Request.URL.Path)
			return
		case page == nil:
			c.String(http.StatusServiceUnavailable, "The page is not built; run make build.")
			return
		}
		if info, err := fs.Stat(page, path); err == nil && !info.IsDir() {
			if strings.HasSuffix(path, ".webmanifest") { // not every system knows it
				c.Header("Content-Type", "application/manifest+json")
			}
			if strings.HasPrefix(path, "assets/") { // named by content
				c.Header("Cache-Control", "public, max-age=31536000, immutable")
			}
			c.Status(http.StatusOK)
			http.ServeFileFS(c.Writer, c.Request, page, path)
			return
		}
		if strings.HasPrefix(path, "assets/") {
			c.String(http.StatusNotFound, "not found")
			return
		}
		c.Header("Cache-Control", "no-cache")
		c.Status(http.StatusOK)
		http.ServeFileFS(c.Writer, c.Request, page, "index.html")
	})
	router.NoMethod(func(c *gin.Context) {
		answer.WriteProblem(c.Writer, http.StatusMethodNotAllowed, c.Request.Method+" is not possible here")
	})
}

// mostWriting is how long an answer may take to be worked out and read. Streams set limits
// of their own, for each thing that they tell.
const mostWriting = 2 * time.Minute

// Serve wraps a handler with the time limits of this program: who never reads is not waited
// for. Streams end when it is shut down.
func Serve(h http.Handler) *http.Server {
	s := &http.Server{Handler: h, ReadHeaderTimeout: 5 * time.Second, ReadTimeout: 60 * time.Second, WriteTimeout: mostWriting, IdleTimeout: 2 * time.Minute}
	if a, ok := h.(app); ok {
		s.RegisterOnShutdown(a.end)
	}
	return s
}
