// Package turn lets long work give way to what somebody waits for. Long work is done in
// pieces; before each it takes its turn: it waits, for a moment, while short work is under
// way, and never more pieces are in work at once than leave a processor to short work, for a
// piece may use several itself. Pieces of several people come one after the other, as they
// were asked for.
package turn

import (
	"context"
	"runtime"
	"sync/atomic"
	"time"
)

// Pool is where short and long work meet.
type Pool struct {
	short atomic.Int64
	slots chan struct{}
}

const (
	// patience is how long a piece waits for short work to end; then it goes on all the
	// same, so that a full hall does not stop it.
	patience = 250 * time.Millisecond
	// glance is how often it looks.
	glance = time.Millisecond
)

// NewPool makes a pool with a place less for long work than there are processors, but one.
func NewPool() *Pool { return &Pool{slots: make(chan struct{}, places())} }

func places() int { return max(1, runtime.GOMAXPROCS(0)-1) }

// Short says that short work begins; done must be called when it ends.
func (p *Pool) Short() (done func()) {
	p.short.Add(1)
	return func() { p.short.Add(-1) }
}

type behindKey struct{}

// Behind is a context whose work gives way, piece by piece.
func (p *Pool) Behind(ctx context.Context) context.Context {
	return context.WithValue(ctx, behindKey{}, p)
}

// Take begins a piece of work: at once, unless the context is Behind others. The piece
// itself is done under the context that comes back, which takes no further turns; done must
// be called when it ends. The error is the context's, when it ends before.
func Take(ctx context.Context) (_ context.Context, done func(), err error) {
	p, _ := ctx.Value(behindKey{}).(*Pool)
	if p == nil {
		return ctx, func() {}, ctx.Err()
	}
	for until := time.Now().Add(patience); p.short.Load() > 0 && time.Now().Before(until); {
		select {
		case <-ctx.Done():
			return ctx, func() {}, ctx.Err()
		case <-time.After(glance):
		}
	}
	select {
	case p.slots <- struct{}{}:
		return context.WithValue(ctx, behindKey{}, (*Pool)(nil)), func() { <-p.slots }, nil
	case <-ctx.Done():
		return ctx, func() {}, ctx.Err()
	}
}
