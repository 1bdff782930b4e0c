package motions

import (
	"context"
	"sync"

	"golang.org/x/sync/singleflight"
)

// once works equal questions that are asked at once out once, for all who ask. What is
// worked out goes on while anybody still waits for it, and is called off when all have
// gone.
type once struct {
	group singleflight.Group
	mu    sync.Mutex
	asked map[string]*asking
}

// asking is a question that somebody waits for.
type asking struct {
	waiting int
	ctx     context.Context
	cancel  context.CancelFunc
}

func newOnce() *once { return &once{asked: map[string]*asking{}} }

// join adds somebody who waits for a question.
func (o *once) join(ctx context.Context, key string) *asking {
	o.mu.Lock()
	defer o.mu.Unlock()
	a := o.asked[key]
	if a == nil {
		a = &asking{}
		a.ctx, a.cancel = context.WithCancel(context.WithoutCancel(ctx))
		o.asked[key] = a
	}
	a.waiting++
	return a
}

// leave takes one away; the last one calls it off.
func (o *once) leave(key string, a *asking) {
	o.mu.Lock()
	defer o.mu.Unlock()
	if a.waiting--; a.waiting == 0 {
		a.cancel()
		if o.asked[key] == a {
			delete(o.asked, key)
			o.group.Forget(key)
		}
	}
}

// ask gives the answer to a question, or the context's error when the asker goes first.
func ask[T any](ctx context.Context, o *once, key string, answer func(context.Context) (T, error)) (T, error) {
	var none T
	a := o.join(ctx, key)
	defer o.leave(key, a)
	done := o.group.DoChan(key, func() (any, error) { return answer(a.ctx) })
	select {
	case <-ctx.Done():
		return none, ctx.Err()
	case r := <-done:
		if r.Err != nil {
			return none, r.Err
		}
		return r.Val.(T), nil //nolint:forcetypeassert // answer gives a T
	}
}
