package motions

import (
	"context"
	"errors"
	"sync"
	"sync/atomic"
	"testing"
	"testing/synctest"
)

// Equal questions asked at once are answered once; other questions are not held up; and
// when all who asked have gone it is called off.
func TestEqualQuestionsAreAnsweredOnce(t *testing.T) {
	synctest.Test(t, func(t *testing.T) {
		o := newOnce()
		var worked atomic.Int32
		open := make(chan struct{})
		slow := func(ctx context.Context) (int, error) {
			worked.Add(1)
			select {
			case <-open:
				return 42, nil
			case <-ctx.Done():
				return 0, ctx.Err()
			}
		}
		var all sync.WaitGroup
		for range 8 {
			all.Go(func() {
				if v, err := ask(t.Context(), o, "same", slow); v != 42 || err != nil {
					t.Errorf("%d, %v", v, err)
				}
			})
		}
		if v, err := ask(t.Context(), o, "other", func(context.Context) (int, error) { return 7, nil }); v != 7 || err != nil {
			t.Errorf("another question: %d, %v", v, err)
		}
		synctest.Wait()
		// One of them goes: the others still get their answer.
		gone, go1 := context.WithCancel(t.Context())
		all.Go(func() {
			if _, err := ask(gone, o, "same", slow); !errors.Is(err, context.Canceled) {
				t.Errorf("whoever has gone gets %v", err)
			}
		})
		synctest.Wait()
		go1()
		synctest.Wait()
		close(open)
		all.Wait()
		if n := worked.Load(); n != 1 {
			t.Errorf("worked out %d times", n)
		}
		if len(o.asked) != 0 {
			t.Errorf("%d questions are still kept", len(o.asked))
		}
	})
}

func TestQuestionsNobodyWaitsForAreCalledOff(t *testing.T) {
	synctest.Test(t, func(t *testing.T) {
		o := newOnce()
		called := make(chan error, 1)
		ctx, cancel := context.WithCancel(t.Context())
		go func() {
			_, _ = ask(ctx, o, "k", func(ctx context.Context) (int, error) {
				<-ctx.Done()
				called <- ctx.Err()
				return 0, ctx.Err()
			})
		}()
		synctest.Wait()
		cancel()
		if err := <-called; !errors.Is(err, context.Canceled) {
			t.Errorf("it goes on: %v", err)
		}
		synctest.Wait()
		// Asked again, it is worked out anew.
		if v, err := ask(t.Context(), o, "k", func(context.Context) (int, error) { return 3, nil }); v != 3 || err != nil {
			t.Errorf("%d, %v", v, err)
		}
	})
}
