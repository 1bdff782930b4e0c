package hall

import (
	"encoding/json"
	"fmt"
	"net/http"
	"strconv"
	"sync"
	"time"

	"github.com/gin-gonic/gin"
	"github.com/klauspost/compress/gzhttp"

	"tussock/internal/web/answer"
)

// At is where a device is in a build.
type At struct {
	Step   int    `json:"step"`
	Device string `json:"device" maxLength:"40" doc:"a name that the device gave itself"`
}

// hub passes on, to all that watch a build, where each device is. Nothing is kept: who
// comes later learns of the next move.
type hub struct {
	mu       sync.Mutex
	watchers map[int64]map[chan At]bool
	closed   chan struct{}
	once     sync.Once
}

func newHub() *hub {
	return &hub{watchers: map[int64]map[chan At]bool{}, closed: make(chan struct{})}
}

// mostWatchers bounds the devices on one build.
const mostWatchers = 64

func (h *hub) watch(build int64) (chan At, bool) {
	h.mu.Lock()
	defer h.mu.Unlock()
	if len(h.watchers[build]) >= mostWatchers {
		return nil, false
	}
	if h.watchers[build] == nil {
		h.watchers[build] = map[chan At]bool{}
	}
	c := make(chan At, 8)
	h.watchers[build][c] = true
	return c, true
}

func (h *hub) leave(build int64, c chan At) {
	h.mu.Lock()
	defer h.mu.Unlock()
	delete(h.watchers[build], c)
	if len(h.watchers[build]) == 0 {
		delete(h.watchers, build)
	}
}

// tell never waits: a device that does not listen misses a move.
func (h *hub) tell(build int64, at At) {
	h.mu.Lock()
	defer h.mu.Unlock()
	for c := range h.watchers[build] {
		select {
		case c <- at:
		default:
		}
	}
}

func (h *hub) close() { h.once.Do(func() { close(h.closed) }) }

// beat keeps a quiet connection from being cut.
const beat = 20 * time.Second

// progress streams server-sent events: where the devices on a build are.
func (s *Routes) progress(c *gin.Context) {
	id, err := strconv.ParseInt(c.Param("id"), 10, 64)
	if err != nil || id < 1 {
		answer.WriteProblem(c.Writer, http.StatusUnprocessableEntity, "id must be the number of a build")
		return
	}
	if _, err := s.store.Build(c.Request.Context(), id); err != nil {
		answer.WriteProblem(c.Writer, http.StatusNotFound, "this build does not exist, or lies in the bin")
		return
	}
	moves, free := s.hub.watch(id)
	if !free {
		answer.WriteProblem(c.Writer, http.StatusTooManyRequests, fmt.Sprintf("%d devices watch this build already", mostWatchers))
		return
	}
	defer s.hub.leave(id, moves)
	h := c.Writer.Header()
	h.Set("Content-Type", "text/event-stream")
	h.Set(gzhttp.HeaderNoCompression, "1")
	h.Set("X-Accel-Buffering", "no")
	c.Status(http.StatusOK)
	send := func(text string) bool {
		if _, err := c.Writer.WriteString(text); err != nil {
			return false
		}
		c.Writer.Flush()
		return true
	}
	if !send(": here\n\n") {
		return
	}
	tick := time.NewTicker(beat)
	defer tick.Stop()
	for {
		select {
		case at := <-moves:
			b, err := json.Marshal(at)
			if err != nil || !send("data: "+string(b)+"\n\n") {
				return
			}
		case <-tick.C:
			if !send(": here\n\n") {
				return
			}
		case <-c.Request.Context().Done():
			return
		case <-s.hub.closed:
			return
		}
	}
}
