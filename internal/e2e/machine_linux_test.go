package e2e

import (
	"runtime"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"golang.org/x/sys/unix"
)

// stood is how long a core must have stood still to count: far more than the work of these
// tests ever keeps a sleeper waiting, far less than any of their bars.
const stood = 40 * time.Millisecond

// machine notes when a core of it stood still, because whoever lends it had other work.
type machine struct {
	mu    sync.Mutex
	still [][2]time.Time
	done  atomic.Bool
}

// watched keeps an eye on every core until the test ends: on each a thread sleeps for a moment
// again and again, and knows when it wakes late.
func watched(t testing.TB) *machine {
	m := &machine{}
	for core := range runtime.NumCPU() {
		go m.watch(core)
	}
	t.Cleanup(func() { m.done.Store(true) })
	return m
}

func (m *machine) watch(core int) {
	runtime.LockOSThread() // and never unlocked: the thread goes with the goroutine
	var only unix.CPUSet
	only.Set(core)
	if unix.SchedSetaffinity(0, &only) != nil {
		return // a core that is not ours
	}
	const nap = 2 * time.Millisecond
	for last := time.Now(); !m.done.Load(); {
		for left := unix.NsecToTimespec(int64(nap)); unix.Nanosleep(&left, &left) != nil; {
			continue // woken by a signal
		}
		now := time.Now()
		if now.Sub(last) > nap+stood {
			m.mu.Lock()
			m.still = append(m.still, [2]time.Time{last, now})
			m.mu.Unlock()
		}
		last = now
	}
}

// stoodStill tells whether it did so at any time since then.
func (m *machine) stoodStill(since time.Time) bool {
	time.Sleep(2 * stood) // a core that stands still tells so afterwards
	m.mu.Lock()
	defer m.mu.Unlock()
	for _, s := range m.still {
		if s[1].After(since) {
			return true
		}
	}
	return false
}
