package turn

import (
	"context"
	"errors"
	"runtime"
	"sync"
	"sync/atomic"
	"testing"
	"time"
)

// Without others work begins at once, and nested pieces never wait for one another.
func TestAlone(t *testing.T) {
	if _, done, err := Take(t.Context()); err != nil {
		t.Error(err)
	} else {
		done()
	}
	p := NewPool()
	ctx := p.Behind(t.Context())
	var held []func()
	for range places() {
		in, done, err := Take(ctx)
		if err != nil {
			t.Fatal(err)
		}
		held = append(held, done)
		if _, inner, err := Take(in); err != nil { // would hang if it wanted a place
			t.Fatal(err)
		} else {
			inner()
		}
	}
	short, stop := context.WithTimeout(ctx, 20*time.Millisecond)
	defer stop()
	if _, _, err := Take(short); !errors.Is(err, context.DeadlineExceeded) {
		t.Errorf("more at once than there are places: %v", err)
	}
	for _, done := range held {
		done()
	}
	if _, done, err := Take(ctx); err != nil {
		t.Error(err)
	} else {
		done()
	}
}

// Long work waits while short work is under way, but not for ever.
func TestLongGivesWay(t *testing.T) {
	p := NewPool()
	ctx := p.Behind(t.Context())
	end := p.Short()
	began := make(chan time.Duration)
	start := time.Now()
	go func() {
		_, done, err := Take(ctx)
		if err == nil {
			done()
		}
		began <- time.Since(start)
	}()
	time.Sleep(30 * time.Millisecond)
	end()
	if took := <-began; took < 30*time.Millisecond || took > 120*time.Millisecond {
		t.Errorf("it begins after %v, the short work ended after 30 ms", took)
	}
	end = p.Short()
	defer end()
	start = time.Now()
	_, done, err := Take(ctx)
	if err != nil {
		t.Fatal(err)
	}
	done()
	if took := time.Since(start); took < patience || took > 3*patience {
		t.Errorf("in a full hall a piece waits %v", took)
	}
}

// Two people's pieces come in turn: neither waits for all of the other's.
func TestPiecesComeInTurn(t *testing.T) {
	p := NewPool()
	var wg sync.WaitGroup
	var done [2]atomic.Int64
	for i := range done {
		for range 2 * runtime.GOMAXPROCS(0) {
			wg.Go(func() {
				for range 20 {
					_, end, err := Take(p.Behind(t.Context()))
					if err != nil {
						t.Error(err)
						return
					}
					time.Sleep(time.Millisecond)
					end()
					done[i].Add(1)
					if a, b := done[0].Load(), done[1].Load(); a > 20 && b > 20 && (a > 4*b || b > 4*a) {
						t.Errorf("%d pieces of one, %d of the other", a, b)
					}
				}
			})
		}
	}
	wg.Wait()
}
