// Package web serves Tussock: the API under /api/v1, described by a generated
// OpenAPI document, and the embedded page. It turns requests into calls of the
// core and core errors into one problem shape; it computes nothing itself.
package web

import (
	"io/fs"
	"net/http"
	"reflect"
	"strings"
	"sync"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humagin"
	"github.com/gin-gonic/gin"
	lru "github.com/hashicorp/golang-lru/v2"
	"github.com/klauspost/compress/gzhttp"

	"tussock/internal/motion"
	"tussock/internal/store"
	"tussock/internal/ways"
)

// Version is the API's version, kept in the generated description.
const Version = "1.0.0"

// cachedReplays bounds the memory of the replay cache, each about 60 kB.
const cachedReplays = 128

// cachedFolds bounds the folded toys kept whole: few are bent at a time.
const cachedFolds = 24

// cachedStudies bounds the studies kept: a handful are looked at.
const cachedStudies = 32

type server struct {
	store   *store.Store
	cache   *lru.Cache[string, *ReplayView]
	folds   *lru.Cache[string, folded]
	studies *lru.Cache[string, *StudyView]
	benches *lru.Cache[string, motion.Bench]
	mu      sync.Mutex
	taught  map[string]motion.Calibration // by way of moving; what trials have taught
	hub     *hub
	sharing *Sharing // nil when only this machine is answered
}

// app is the handler with what must be ended before it.
type app struct {
	http.Handler
	hub *hub
}

// New makes the handler, for this machine alone. page may be nil when the front end is
// not built.
func New(s *store.Store, page fs.FS) (http.Handler, error) { return NewShared(s, page, nil) }

// NewShared is New for other devices of the network as well, when sharing is not nil.
func NewShared(s *store.Store, page fs.FS, sharing *Sharing) (http.Handler, error) {
	gin.SetMode(gin.ReleaseMode)
	router := gin.New()
	router.HandleMethodNotAllowed = true
	router.Use(gin.Recovery(), headers)
	srv, err := newServer(s)
	if err != nil {
		return nil, err
	}
	srv.sharing = sharing
	srv.register(router)
	router.GET("/api/v1/builds/:id/progress", srv.progress)
	serveFiles(router, page)
	compressed, err := gzhttp.NewWrapper(gzhttp.MinSize(1024))
	if err != nil {
		return nil, err
	}
	return app{compressed(guarded(http.NewCrossOriginProtection().Handler(router), sharing)), srv.hub}, nil
}

// Describe is the OpenAPI description in YAML.
func Describe() ([]byte, error) {
	gin.SetMode(gin.ReleaseMode)
	srv, err := newServer(nil)
	if err != nil {
		return nil, err
	}
	return srv.register(gin.New()).OpenAPI().YAML()
}

func newServer(s *store.Store) (*server, error) {
	cache, err := lru.New[string, *ReplayView](cachedReplays)
	if err != nil {
		return nil, err
	}
	studies, err := lru.New[string, *StudyView](cachedStudies)
	if err != nil {
		return nil, err
	}
	folds, err := lru.New[string, folded](cachedFolds)
	if err != nil {
		return nil, err
	}
	benches, err := lru.New[string, motion.Bench](cachedBenches)
	return &server{store: s, cache: cache, folds: folds, studies: studies, benches: benches, taught: map[string]motion.Calibration{}, hub: newHub()}, err
}

func (s *server) register(router *gin.Engine) huma.API {
	huma.DefaultArrayNullable = false
	config := huma.DefaultConfig("Tussock", Version)
	config.DocsPath = ""
	config.OpenAPIPath = "/api/v1/openapi"
	config.SchemasPath = "/api/v1/schemas"
	config.CreateHooks = nil
	json := config.Formats["application/json"]
	json.Unmarshal = readJSON
	config.Formats = map[string]huma.Format{"application/json": json, "json": json}
	api := humagin.New(router, config)
	s.shelfRoutes(api)
	s.studyRoutes(api)
	s.paperRoutes(api)
	s.waysRoutes(api)
	s.fitRoutes(api)
	s.printRoutes(api)
	s.placementRoutes(api)
	s.stepRoutes(api)
	s.sharingRoutes(api)
	s.buildRoutes(api)
	s.trialRoutes(api)
	s.motionRoutes(api)
	s.tuneRoutes(api)
	s.compareRoutes(api)
	s.drawerRoutes(api)
	s.fileRoutes(api)
	// What drawings hold is described although no answer names it.
	for _, w := range ways.All() {
		for _, d := range w.Data {
			api.OpenAPI().Components.Schemas.Schema(reflect.TypeOf(d), true, "")
		}
	}
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
			writeProblem(c.Writer, http.StatusNotFound, "there is nothing at "+c.Request.URL.Path)
			return
		case page == nil:
			c.String(http.StatusServiceUnavailable, "The page is not built; run make build.")
			return
		}
		if info, err := fs.Stat(page, path); err == nil && !info.IsDir() {
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
		writeProblem(c.Writer, http.StatusMethodNotAllowed, c.Request.Method+" is not possible here")
	})
}

// Serve wraps a handler with the time limits of this program. Streams end when it is
// shut down.
func Serve(h http.Handler) *http.Server {
	s := &http.Server{Handler: h, ReadHeaderTimeout: 5 * time.Second, ReadTimeout: 60 * time.Second, IdleTimeout: 2 * time.Minute}
	if a, ok := h.(app); ok {
		s.RegisterOnShutdown(a.hub.close)
	}
	return s
}
