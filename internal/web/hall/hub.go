package hall

import (
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"reflect"
	"sync"
	"time"

	"github.com/gin-gonic/gin"
	"github.com/klauspost/compress/gzhttp"

	"tussock/internal/web/answer"
)

var eventType = reflect.TypeOf(Event{})

// At is where a device is in a build.
type At struct {
	Step   int    `json:"step"`
	Device string `json:"device" maxLength:"40" doc:"a name that the device gave itself"`
}

// Event is what a page is told of what others do.
type Event struct {
	Kind  string `json:"kind" enum:"at,changed,all" doc:"at: somebody is at a step; changed: a build is not as it was; all: everything may be another"`
	Build int64  `json:"build,omitempty"`
	By    string `json:"by,omitempty" doc:"the page that did it"`
	At    *At    `json:"at,omitempty"`
}

// hub passes on, to all pages, what the others do. Nothing is kept: who comes later asks.
type hub struct {
	mu       sync.Mutex
	watchers map[*watcher]bool
	closed   chan struct{}
	once     sync.Once
}

// watcher is a page that listens. What it has not been told yet is gathered, each build
// once, so that a slow one misses nothing and takes no room.
type watcher struct {
	wake    chan struct{}
	changed map[int64]string // build, and the page that changed it: "" when there were several
	at      map[int64]At
	all     bool // everything, and the page that did it
	allBy   string
}

func newHub() *hub {
	return &hub{watchers: map[*watcher]bool{}, closed: make(chan struct{})}
}

// mostWatchers bounds the pages that listen.
const mostWatchers = 256

func (h *hub) watch() (*watcher, bool) {
	h.mu.Lock()
	defer h.mu.Unlock()
	if len(h.watchers) >= mostWatchers {
		return nil, false
	}
	w := &watcher{wake: make(chan struct{}, 1), changed: map[int64]string{}, at: map[int64]At{}}
	h.watchers[w] = true
	return w, true
}

func (h *hub) leave(w *watcher) {
	h.mu.Lock()
	defer h.mu.Unlock()
	delete(h.watchers, w)
}

// each changes what every watcher is to be told, and never waits for one.
func (h *hub) each(f func(*watcher)) {
	h.mu.Lock()
	defer h.mu.Unlock()
	for w := range h.watchers {
		f(w)
		select {
		case w.wake <- struct{}{}:
		default:
		}
	}
}

// changed tells that a page has changed a build; 0 is all of them.
func (h *hub) changed(ctx context.Context, build int64) {
	by := pageOf(ctx)
	h.each(func(w *watcher) {
		if build == 0 {
			w.all, w.allBy = true, by
			return
		}
		if was, known := w.changed[build]; known && was != by {
			w.changed[build] = ""
			return
		}
		w.changed[build] = by
	})
}

func (h *hub) tell(build int64, at At) { h.each(func(w *watcher) { w.at[build] = at }) }

// take is what a watcher has not been told yet.
func (h *hub) take(w *watcher) []Event {
	h.mu.Lock()
	defer h.mu.Unlock()
	var out []Event
	if w.all {
		out = append(out, Event{Kind: "all", By: w.allBy})
	}
	for b, by := range w.changed {
		out = append(out, Event{Kind: "changed", Build: b, By: by})
	}
	for b, at := range w.at {
		out = append(out, Event{Kind: "at", Build: b, By: at.Device, At: &at})
	}
	w.all = false
	clear(w.changed)
	clear(w.at)
	return out
}

func (h *hub) close() { h.once.Do(func() { close(h.closed) }) }

const (
	// beat keeps a quiet connection from being cut.
	beat = 20 * time.Second
	// patience is how long a page may take to read what it is told.
	patience = 10 * time.Second
)

// events streams server-sent events: what others do, for all builds.
func (s *Routes) events(c *gin.Context) {
	w, free := s.hub.watch()
	if !free {
		answer.WriteProblem(c.Writer, http.StatusTooManyRequests, fmt.Sprintf("%d pages listen already", mostWatchers))
		return
	}
	defer s.hub.leave(w)
	h := c.Writer.Header()
	h.Set("Content-Type", "text/event-stream")
	h.Set(gzhttp.HeaderNoCompression, "1")
	h.Set("X-Accel-Buffering", "no")
	c.Status(http.StatusOK)
	line := http.NewResponseController(c.Writer)
	send := func(text string) bool {
		// Where no time limit can be set, as in a test's recorder, none is needed.
		_ = line.SetWriteDeadline(time.Now().Add(patience))
		if _, err := c.Writer.WriteString(text); err != nil {
			return false
		}
		return line.Flush() == nil
	}
	if !send(": here\n\n") {
		return
	}
	tick := time.NewTicker(beat)
	defer tick.Stop()
	for {
		select {
		case <-w.wake:
			if !s.stillIn(c.Request.Context()) {
				return
			}
			for _, e := range s.hub.take(w) {
				b, err := json.Marshal(e)
				if err != nil || !send("data: "+string(b)+"\n\n") {
					return
				}
			}
		case <-tick.C:
			if !s.stillIn(c.Request.Context()) || !send(": here\n\n") {
				return
			}
		case <-c.Request.Context().Done():
			return
		case <-s.hub.closed:
			return
		}
	}
}

type pageKey struct{}

// PageHeader is the header by which a page names itself, to know its own changes by.
const PageHeader = "X-Tussock-Page"

const mostPageName = 40

func pageOf(ctx context.Context) string {
	page, _ := ctx.Value(pageKey{}).(string)
	return page
}

// Named notes the page that a request comes from.
func Named(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if page := r.Header.Get(PageHeader); page != "" && len(page) <= mostPageName {
			r = r.WithContext(context.WithValue(r.Context(), pageKey{}, page))
		}
		next.ServeHTTP(w, r)
	})
}
